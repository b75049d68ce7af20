import { Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { tokensQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { ShownOnce } from "../../components/ShownOnce";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { Part } from "./AccountPage";
import { Send } from "./SignInPage";

interface NewToken {
  name: string;
  scope: "read" | "write";
}
const { Field, Choice } = fieldsOf<NewToken>();
const SCOPES = [
  { value: "read", label: "Read" },
  { value: "write", label: "Read and write" },
] as const;

/** Tokens with which other programs act for me: named, limited, taken back. */
export function Tokens() {
  const queries = useQueryClient();
  const tokens = useQuery(tokensQuery());
  const [secret, setSecret] = useState<string | null>(null);
  const kit = useKit<NewToken>({ start: { name: "", scope: "read" }, send });

  async function send(typed: NewToken) {
    const made = await take(client.POST("/api/v1/me/tokens", { body: typed }));
    setSecret(made.secret);
    kit.form.reset();
    await queries.invalidateQueries({ queryKey: ["me", "tokens"] });
  }
  const revoke = (token_id: string) =>
    attempt(async () => {
      await take(client.POST("/api/v1/me/tokens/{token_id}/revoke", { params: { path: { token_id } } }));
      await queries.invalidateQueries({ queryKey: ["me", "tokens"] });
    });

  const open = tokens.data?.filter(({ revoked_at }) => revoked_at === null) ?? [];
  return (
    <Part title="Tokens for other programs">
      {open.map(({ id, name, scope }) => (
        <Flex key={id} justify="space-between" align="center" gap="3" py="1">
          <Text>
            {name}, {scope === "read" ? "reads only" : "reads and writes"}
          </Text>
          <SideButton aria-label={`Take back ${name}`} onClick={() => void revoke(id)}>
            Take back
          </SideButton>
        </Flex>
      ))}
      {secret !== null && (
        <ShownOnce say="Copy it now; it is not shown again:" secret={secret} testId="token" />
      )}
      <KitForm kit={kit}>
        <Grid gap="4" mt="3">
          <Field name="name" label="What will use it" />
          <Choice name="scope" label="It may" options={SCOPES} />
          <FormProblem shown={["name"]} />
          <Send action="Make a token" />
        </Grid>
      </KitForm>
    </Part>
  );
}
