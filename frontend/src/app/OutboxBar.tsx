import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { keptSince } from "../api/client";
import { keepSending, outbox, sendAgain, sendWaiting } from "../api/outbox";
import { SideButton } from "../components/Button";
import { useStore } from "../lib/store";
import { whenText } from "../lib/times";

/** What the server has not got yet: kept here, sent when it answers. */
export function OutboxBar() {
  const waiting = useSyncExternalStore(outbox.subscribe, outbox.get);
  const queries = useQueryClient();
  const since = useStore(keptSince);
  useEffect(() => keepSending(() => void queries.invalidateQueries()), [queries]);
  useEffect(() => {
    if (since === "") return;
    const again = () => void queries.invalidateQueries();
    window.addEventListener("online", again);
    return () => window.removeEventListener("online", again);
  }, [queries, since]);
  if (waiting.length === 0) return since === "" ? null : <Known since={since} />;
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

/** The network is gone: what is shown is what this device knew last. */
function Known({ since }: { since: string }) {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return (
    <Text
      role="status"
      px={{ base: "4", md: "6" }}
      py="1.5"
      bg="card"
      borderBottom="1.5px solid"
      borderColor="rope"
      fontSize="note"
      data-noprint
    >
      No connection. This is what was known {whenText(new Date(since).toISOString(), zone, new Date())}; what
      you enter is kept and sent later.
    </Text>
  );
}
