import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { type MailLine, outboxQuery } from "../../api/outgoing";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Failed } from "../../components/States";
import { clock, dayName } from "../../lib/times";
import { Part } from "./AccountPage";

const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** Mail of the workspace: what went, what waits, what was given up and why. */
export function Outbox() {
  const found = useQuery(outboxQuery());
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  if (!found.data?.length) return null;
  return (
    <Part title="Messages that went out">
      {found.data.map((mail) => (
        <One key={mail.id} mail={mail} />
      ))}
    </Part>
  );
}

function said({ state, sent_at, created_at, tries, next_at }: MailLine): string {
  if (state === "sent" && sent_at !== null) return `sent ${dayName(sent_at, ZONE)} ${clock(sent_at, ZONE)}`;
  if (state === "devices") return `to devices, ${dayName(created_at, ZONE)} ${clock(created_at, ZONE)}`;
  if (state === "failed") return `given up after ${tries} tries`;
  return tries === 0 ? "waits" : `tried ${tries} times, again ${clock(next_at, ZONE)}`;
}

function One({ mail }: { mail: MailLine }) {
  const queries = useQueryClient();
  const again = () =>
    attempt(async () => {
      const params = { path: { mail_id: mail.id } };
      await take(client.POST("/api/v1/outbox/{mail_id}/again", { params }));
      await queries.invalidateQueries({ queryKey: ["outbox"] });
    });
  return (
    <Box borderTop="1px solid" borderColor="hairline" py="2">
      <chakra.details>
        <chakra.summary
          cursor="pointer"
          minH="44px"
          display="flex"
          alignItems="center"
          gap="3"
          flexWrap="wrap"
        >
          <Text fontWeight="650">{mail.subject}</Text>
          <Text color="soft">
            {mail.address !== "" && `${mail.address}, `}
            {said(mail)}
          </Text>
        </chakra.summary>
        <Text whiteSpace="pre-wrap" fontSize="note" mt="2">
          {mail.text}
        </Text>
      </chakra.details>
      {mail.trouble !== "" && (
        <Flex gap="3" align="center" wrap="wrap" mt="1">
          <Text color="accent" fontWeight="600" fontSize="note" flex="1">
            {mail.trouble}
          </Text>
          {mail.state === "failed" && <SideButton onClick={() => void again()}>Try again</SideButton>}
        </Flex>
      )}
    </Box>
  );
}
