import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { client, take } from "../../api/client";
import { attempt } from "../../components/attempt";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { NewPassword } from "../../components/NewPassword";
import { Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { useMe } from "../../lib/me";
import { Send, useEntered } from "./SignInPage";

interface Household {
  household: string;
  name: string;
  login: string;
  password: string;
}
const { Field } = fieldsOf<Household>();

/** A pool that another firm or household offers: taken part in with one's own workspace, or with a new one. */
export function SharePage() {
  const { secret = "" } = useParams();
  const me = useMe();
  const offer = useQuery({
    queryKey: ["offer", secret],
    queryFn: () => take(client.POST("/api/v1/auth/share", { body: { secret } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (offer.isPending) return <Loading what="the offer" />;
  if (offer.isError)
    return (
      <Card maxW="28rem">
        <Text role="alert" mb="3">
          {offer.error.message}
        </Text>
        <PlainLink to="/">To the pools</PlainLink>
      </Card>
    );
  return (
    <Card maxW="30rem">
      <Heading as="h1" fontSize="title" mb="3">
        {offer.data.name} shares a pool with you
      </Heading>
      <Text mb="4">
        You both read one journal and write in it; each entry says whose it is. Your costs and what you mark
        internal stay yours. Either can end it.
      </Text>
      {me === null && <NewHousehold secret={secret} />}
      {me?.role === "office" && <Accept secret={secret} workspace={me.workspace} />}
      {me !== null && me.role !== "office" && <Text>Your office accepts it: pass this link on to them.</Text>}
    </Card>
  );
}

function Accept({ secret, workspace }: { secret: string; workspace: string }) {
  const navigate = useNavigate();
  const entered = useEntered();
  const accept = () =>
    attempt(async () => {
      const pool = await take(client.POST("/api/v1/shares", { body: { secret } }));
      await entered();
      await navigate(`/pools/${pool}`);
    });
  return <MainButton onClick={() => void accept()}>Take part with {workspace}</MainButton>;
}

function NewHousehold({ secret }: { secret: string }) {
  const navigate = useNavigate();
  const entered = useEntered();
  const kit = useKit<Household>({ start: { household: "", name: "", login: "", password: "" }, send });

  async function send(typed: Household) {
    await take(client.POST("/api/v1/auth/household", { body: { secret, ...typed } }));
    await navigate("/");
    await entered();
  }

  return (
    <>
      <KitForm kit={kit}>
        <Grid gap="4">
          <Field name="household" label="Your household or firm, as the log shall show it" />
          <Field name="name" label="Your name" autoComplete="name" />
          <Field name="login" label="Email or user name to sign in with" autoComplete="username" />
          <NewPassword Field={Field} name="password" />
          <FormProblem shown={["household", "name", "login", "password"]} />
          <Send action="Take part" />
        </Grid>
      </KitForm>
      <Text color="soft" mt="4">
        Signing in here already? <PlainLink to="/">Sign in</PlainLink>, then open this link once more.
      </Text>
    </>
  );
}
