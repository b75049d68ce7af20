import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { serverAnswers } from "../api/client";
import { forgetKept, keptSince } from "../api/kept";
import { keepSending, outbox, sendAgain, sendWaiting } from "../api/outbox";
import { SideButton } from "../components/Button";
import { useStore } from "../lib/store";
import { whenText } from "../lib/times";

const AGAIN_MS = 10_000;

/** What the server has not got yet: kept here, sent when it answers. */
export function OutboxBar() {
  const waiting = useSyncExternalStore(outbox.subscribe, outbox.get);
  const queries = useQueryClient();
  const since = useStore(keptSince);
  useEffect(() => keepSending(() => void queries.invalidateQueries()), [queries]);
  const isKept = since !== "";
  useEffect(() => {
    if (!isKept) return;
    const look = async () => {
      if (!(await serverAnswers())) return;
      forgetKept();
      void queries.invalidateQueries();
    };
    const again = () => void look();
    // A slow answer is no lost network: nothing tells that it is over, so it is asked for.
    const timer = window.setInterval(again, AGAIN_MS);
    window.addEventListener("online", again);
    return () => {
      window.clearInterval(timer);
      window.removeEventListener("online", again);
    };
  }, [queries, isKept]);
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
            server answers.{since !== "" && ` What is shown was known ${knownAt(since)}.`}
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
      No connection. This is what was known {knownAt(since)}; what you enter is kept and sent later.
    </Text>
  );
}

function knownAt(since: string): string {
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  return whenText(new Date(since).toISOString(), zone, new Date());
}
