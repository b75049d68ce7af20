import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { keepSending, outbox, sendAgain, sendWaiting } from "../api/outbox";
import { SideButton } from "../components/Button";

/** What the server has not got yet: kept here, sent when it answers. */
export function OutboxBar() {
  const waiting = useSyncExternalStore(outbox.subscribe, outbox.get);
  const queries = useQueryClient();
  useEffect(() => keepSending(() => void queries.invalidateQueries()), [queries]);
  if (waiting.length === 0) return null;
  const refused = waiting.filter((one) => one.refused !== null);
  const open = waiting.length - refused.length;
  return (
    <Box
      role="status"
      px={{ base: "4", md: "7" }}
      py="2"
      borderBottom="1.5px solid"
      borderColor="accent"
      bg="card"
      data-noprint
    >
      {open > 0 && (
        <Flex gap="4" align="center" wrap="wrap">
          <Text fontWeight="650">
            {open === 1 ? "One entry is" : `${open} entries are`} not sent yet. Kept on this device until the
            server answers.
          </Text>
          <SideButton onClick={() => void sendWaiting()}>Send now</SideButton>
        </Flex>
      )}
      {refused.map((one) => (
        <Flex key={one.body.id} gap="4" align="center" wrap="wrap" mt="1">
          <Text>
            <Text as="span" fontWeight="650">
              {one.what} was not taken:
            </Text>{" "}
            {one.refused}
          </Text>
          <SideButton onClick={() => void sendAgain(one.body.id)}>Try again</SideButton>
          <SideButton onClick={() => outbox.discard(one.body.id)}>Drop it</SideButton>
        </Flex>
      ))}
    </Box>
  );
}
