import { Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { hooksQuery } from "../../api/outgoing";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { ShownOnce } from "../../components/ShownOnce";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { Part } from "./AccountPage";
import { Send } from "./SignInPage";

const { Field } = fieldsOf<{ url: string }>();

/** Other programs that are told of every entry, signed with a secret that is shown once. */
export function Programs() {
  const queries = useQueryClient();
  const hooks = useQuery(hooksQuery());
  const [secret, setSecret] = useState<string | null>(null);
  const kit = useKit<{ url: string }>({ start: { url: "" }, send });
  const anew = () => queries.invalidateQueries({ queryKey: ["hooks"] });

  async function send(typed: { url: string }) {
    const made = await take(client.POST("/api/v1/hooks", { body: typed }));
    setSecret(made.secret);
    kit.form.reset();
    await anew();
  }
  const end = (hook_id: string) =>
    attempt(async () => {
      await take(client.POST("/api/v1/hooks/{hook_id}/end", { params: { path: { hook_id } } }));
      await anew();
    });

  return (
    <Part title="Programs that are told of entries">
      {hooks.data?.map(({ id, url }) => (
        <Flex key={id} justify="space-between" align="center" gap="3" py="1">
          <Text overflowWrap="anywhere">{url}</Text>
          <SideButton aria-label={`End ${url}`} onClick={() => void end(id)}>
            End
          </SideButton>
        </Flex>
      ))}
      {secret !== null && (
        <ShownOnce
          say="Its secret signs what it is told. Copy it now; it is not shown again:"
          secret={secret}
          testId="hook-secret"
        />
      )}
      <KitForm kit={kit}>
        <Grid gap="4" mt="3">
          <Field
            name="url"
            label="Address of the program"
            help="It begins with https, or lies in your own network."
          />
          <FormProblem shown={["url"]} />
          <Send action="Tell it of entries" />
        </Grid>
      </KitForm>
    </Part>
  );
}
