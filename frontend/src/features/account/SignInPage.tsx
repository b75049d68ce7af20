import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, take } from "../../api/client";
import type { AuthState } from "../../api/types";
import { attempt } from "../../components/attempt";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { NewPassword } from "../../components/NewPassword";
import { FormProblem, fieldsOf, KitForm, useKit, useSaving } from "../../forms/kit";
import { canPasskey, signByPasskey } from "../../lib/passkey";
import { ROLES } from "./roles";

interface SignIn {
  login: string;
  password: string;
  code: string;
}
interface First {
  code: string;
  name: string;
  login: string;
  password: string;
}
const SignInFields = fieldsOf<SignIn>();
const FirstFields = fieldsOf<First>();

/** The way in: the demo's people by one tap, the first person by a code, everybody else by name and password. */
export function SignInPage({ state }: { state: AuthState }) {
  useEffect(() => {
    document.title = "Sign in · Kumpan";
  }, []);
  if (state.demo.length > 0) return <DemoPeople people={state.demo} />;
  return state.first ? <FirstPerson /> : <NameAndPassword passkeys={state.passkeys} />;
}

/** All that was asked before is asked anew: it may be another person. */
export function useEntered(): () => Promise<void> {
  const queries = useQueryClient();
  return () => queries.resetQueries();
}

function DemoPeople({ people }: { people: AuthState["demo"] }) {
  const entered = useEntered();
  const enter = (person_id: string) =>
    attempt(async () => {
      await take(client.POST("/api/v1/auth/demo", { body: { person_id } }));
      await entered();
    });
  const places = [...new Set(people.map(({ workspace }) => workspace))];
  return (
    <Card maxW="40rem">
      <Heading as="h1" fontSize="title" mb="2">
        This is a demo
      </Heading>
      <Text mb="4">All people, pools and figures in it are invented. Come in as one of them:</Text>
      {places.map((place) => (
        <Box key={place} mb="4">
          <Heading as="h2" fontSize="lead" mb="2">
            {place}
          </Heading>
          <Flex gap="3" wrap="wrap">
            {people
              .filter(({ workspace }) => workspace === place)
              .map(({ id, name, role }) => (
                <Box key={name}>
                  <MainButton onClick={() => void enter(id ?? "")}>{name}</MainButton>
                  <Text fontSize="note" color="soft">
                    {ROLES[role].split(":")[0]}
                  </Text>
                </Box>
              ))}
          </Flex>
        </Box>
      ))}
    </Card>
  );
}

function NameAndPassword({ passkeys }: { passkeys: boolean }) {
  const [codeDue, setCodeDue] = useState(false);
  const entered = useEntered();
  const kit = useKit<SignIn>({ start: { login: "", password: "", code: "" }, send });

  async function send(typed: SignIn) {
    const { needs_code } = await take(client.POST("/api/v1/auth/sign-in", { body: typed }));
    if (needs_code) setCodeDue(true);
    else await entered();
  }
  const byPasskey = () =>
    attempt(async () => {
      const { options } = await take(client.POST("/api/v1/auth/passkey/offer"));
      const credential = await signByPasskey(options);
      await take(client.POST("/api/v1/auth/passkey", { body: { credential, name: "" } }));
      await entered();
    });

  return (
    <Card maxW="28rem">
      <Heading as="h1" fontSize="title" mb="4">
        Sign in
      </Heading>
      <KitForm kit={kit}>
        <Grid gap="4">
          <SignInFields.Field name="login" label="Email or user name" autoComplete="username" />
          <SignInFields.Field
            name="password"
            label="Password"
            type="password"
            autoComplete="current-password"
          />
          {codeDue && (
            <SignInFields.Field
              name="code"
              label="Code of your authenticator app"
              inputMode="numeric"
              autoComplete="one-time-code"
            />
          )}
          <FormProblem shown={["login", "password", "code"]} />
          <Send action="Sign in" />
        </Grid>
      </KitForm>
      {passkeys && canPasskey() && (
        <SideButton mt="4" onClick={() => void byPasskey()}>
          Sign in with a passkey
        </SideButton>
      )}
      <Text color="soft" mt="4">
        Forgot it, or never had one? Your office makes a link with which you choose a new one.
      </Text>
    </Card>
  );
}

function FirstPerson() {
  const entered = useEntered();
  const kit = useKit<First>({ start: { code: "", name: "", login: "", password: "" }, send });

  async function send(typed: First) {
    await take(client.POST("/api/v1/auth/first", { body: typed }));
    await entered();
  }

  return (
    <Card maxW="28rem">
      <Heading as="h1" fontSize="title" mb="2">
        The first person
      </Heading>
      <Text mb="4">
        Nobody can sign in here yet. You will be the office: you see everything and invite the others.
      </Text>
      <KitForm kit={kit}>
        <Grid gap="4">
          <FirstFields.Field
            name="code"
            label="Code from the terminal"
            help="It was printed when Kumpan started."
          />
          <FirstFields.Field name="name" label="Your name, as the log shall show it" autoComplete="name" />
          <FirstFields.Field
            name="login"
            label="Email or user name to sign in with"
            autoComplete="username"
          />
          <NewPassword Field={FirstFields.Field} name="password" />
          <FormProblem shown={["code", "name", "login", "password"]} />
          <Send action="Begin" />
        </Grid>
      </KitForm>
    </Card>
  );
}

export function Send({ action }: { action: string }) {
  const busy = useSaving();
  return (
    <MainButton type="submit" disabled={busy} justifySelf={{ md: "start" }}>
      {busy ? "Sending …" : action}
    </MainButton>
  );
}
