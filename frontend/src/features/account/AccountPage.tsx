import { Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import { accountQuery } from "../../api/accountQueries";
import { client, forgetAnswers, take } from "../../api/client";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { NewPassword } from "../../components/NewPassword";
import { notify } from "../../components/notice";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { stopHere } from "../../lib/push";
import { whenText } from "../../lib/times";
import { MailChoices } from "./MailChoices";
import { Passkeys } from "./Passkeys";
import { PushHere } from "./PushHere";
import { ROLES } from "./roles";
import { SecondFactor } from "./SecondFactor";
import { Send } from "./SignInPage";
import { Tokens } from "./Tokens";

/** Who I am here: password, second factor, devices, tokens; and the way out. */
export function AccountPage() {
  const account = useQuery(accountQuery());
  const queries = useQueryClient();
  useEffect(() => {
    document.title = "You · Kumpan";
  }, []);
  if (account.isPending) return <Loading what="your account" />;
  if (account.isError) return <Failed error={account.error} again={() => void account.refetch()} />;
  const { me, login, second_factor, passkeys, devices } = account.data;
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;

  const leave = () =>
    attempt(async () => {
      await stopHere();
      await take(client.POST("/api/v1/auth/sign-out"));
      await forgetAnswers();
      await queries.resetQueries();
    });
  const endOthers = () =>
    attempt(async () => {
      await take(client.POST("/api/v1/me/devices/end"));
      await queries.invalidateQueries({ queryKey: ["me"] });
      notify("Signed out everywhere else.");
    });

  return (
    <Grid gap="4" maxW="44rem">
      <Flex justify="space-between" align="center" wrap="wrap" gap="3">
        <Heading as="h1" fontSize="title">
          {me.name}
        </Heading>
        <SideButton onClick={() => void leave()}>Sign out</SideButton>
      </Flex>
      <Text color="soft">
        {me.workspace} · {ROLES[me.role]}
        {login === null ? " · without a password, as everybody in the demo" : ` · signs in as ${login}`}
      </Text>
      {me.role === "office" && <PlainLink to="/people">People, roles and invitations</PlainLink>}
      {me.role !== "guest" && <MailChoices />}
      {me.role !== "guest" && <PushHere />}
      {login !== null && <ChangePassword />}
      {login !== null && <SecondFactor on={second_factor} />}
      {login !== null && <Passkeys passkeys={passkeys} />}
      <Part title="Signed in on">
        <Grid as="ul" gap="1" listStyleType="none">
          {devices.map((one) => (
            <li key={one.created_at + one.device}>
              {one.device}
              {one.this ? " (this one)" : `, last used ${whenText(one.seen_at, zone, new Date())}`}
            </li>
          ))}
        </Grid>
        {devices.length > 1 && (
          <SideButton mt="3" onClick={() => void endOthers()}>
            Sign out everywhere else
          </SideButton>
        )}
      </Part>
      <Tokens />
    </Grid>
  );
}

export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Card as="section" aria-label={title}>
      <Heading as="h2" fontSize="lead" mb="3">
        {title}
      </Heading>
      {children}
    </Card>
  );
}

interface Passwords {
  old: string;
  new: string;
}
const { Field } = fieldsOf<Passwords>();

function ChangePassword() {
  const kit = useKit<Passwords>({ start: { old: "", new: "" }, send });

  async function send(typed: Passwords) {
    await take(client.POST("/api/v1/me/password", { body: typed }));
    kit.form.reset();
    notify("The password is changed. You are signed out everywhere else.");
  }

  return (
    <Part title="Password">
      <KitForm kit={kit}>
        <Grid gap="4">
          <Field name="old" label="Password of now" type="password" autoComplete="current-password" />
          <NewPassword Field={Field} name="new" label="New password" />
          <FormProblem shown={["old", "new"]} />
          <Send action="Change it" />
        </Grid>
      </KitForm>
    </Part>
  );
}
