import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { client, take } from "../../api/client";
import { Card } from "../../components/Card";
import { NewPassword } from "../../components/NewPassword";
import { Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { Send, useEntered } from "./SignInPage";

interface Join {
  login: string;
  password: string;
}
const { Field } = fieldsOf<Join>();

/** An invitation, or the reset of a password: a link that opens once. */
export function JoinPage() {
  const { secret = "" } = useParams();
  const navigate = useNavigate();
  const entered = useEntered();
  const link = useQuery({
    queryKey: ["link", secret],
    queryFn: () => take(client.POST("/api/v1/auth/link", { body: { secret } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const kit = useKit<Join>({ start: { login: "", password: "" }, send });

  async function send(typed: Join) {
    await take(client.POST("/api/v1/auth/join", { body: { secret, ...typed } }));
    await navigate("/");
    await entered();
  }

  if (link.isPending) return <Loading what="the link" />;
  if (link.isError)
    return (
      <Card maxW="28rem">
        <Text role="alert" mb="3">
          {link.error.message}
        </Text>
        <PlainLink to="/">To signing in</PlainLink>
      </Card>
    );
  const invited = link.data.kind === "invite";
  return (
    <Card maxW="28rem">
      <Heading as="h1" fontSize="title" mb="4">
        {invited ? `Welcome, ${link.data.name}` : `A new password for ${link.data.name}`}
      </Heading>
      <KitForm kit={kit}>
        <Grid gap="4">
          {invited && (
            <Field name="login" label="Email or user name to sign in with" autoComplete="username" />
          )}
          <NewPassword Field={Field} name="password" />
          <FormProblem shown={["login", "password"]} />
          <Send action={invited ? "Join" : "Set the password"} />
        </Grid>
      </KitForm>
    </Card>
  );
}
