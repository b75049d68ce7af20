import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { client } from "../../api/client";
import { peopleQuery, poolQuery, treatmentQuery } from "../../api/queries";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { swimText } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useReadsOnly } from "../../lib/me";
import { personStore } from "../../lib/person";
import { saveFile } from "../../lib/saveFile";
import { useStore } from "../../lib/store";
import { clock, dayName } from "../../lib/times";
import { unitsStore } from "../../lib/units";

/** The same as a PDF, with a code that opens what the pool says of itself; makes a link for guests. */
const withCode = (poolId: string) =>
  attempt(async () => {
    const { data, response } = await client.POST("/api/v1/pools/{pool_id}/papers/notice.pdf", {
      params: { path: { pool_id: poolId } },
      parseAs: "blob",
    });
    if (!response.ok) throw new Error("The notice could not be made; try once more.");
    saveFile(data as Blob, "notice.pdf");
    notify("The code opens this pool for guests for 90 days; end it under the pool’s links.");
  });

/** A notice for the gate: closed, why, until when, and the test it hangs on. Made to be printed. */
export function NoticePage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const head = useQuery(poolQuery(poolId));
  const sheet = useQuery(treatmentQuery(poolId, units));
  const people = useQuery(peopleQuery());
  const me = useStore(personStore);
  const readsOnly = useReadsOnly();
  if (head.isPending) return <Loading what="the notice" />;
  if (head.isError) return <Failed error={head.error} again={() => void head.refetch()} />;
  const { settings, swim } = head.data;
  const zone = settings.time_zone;
  const now = new Date().toISOString();
  const until = sheet.data?.notes.find((note) => note.code === "swim_again")?.text;
  const person = people.data?.find(({ id }) => id === me)?.name;
  return (
    <Box maxW="44rem">
      <Flex gap="3" mb="5" data-noprint wrap="wrap" align="center">
        <SideButton onClick={() => window.print()}>Print</SideButton>
        {!readsOnly && <SideButton onClick={() => void withCode(poolId)}>With a code for phones</SideButton>}
        <PlainLink to={`/pools/${poolId}`}>Back to the pool</PlainLink>
        {swim.code === "yes" && <Text>By the last test they may swim: this notice is not needed now.</Text>}
      </Flex>
      <Box border="6px solid" borderColor="ink" borderRadius="10px" p={{ base: "5", md: "8" }} bg="card">
        <Heading as="h1" fontSize={{ base: "2.5rem", md: "amount" }} lineHeight="1.1" mb="4">
          No swimming
        </Heading>
        <Text fontSize="title" fontWeight="700" mb="4">
          {settings.name}
        </Text>
        {swim.code !== "yes" && (
          <Text fontSize="lead" mb="3">
            {swimText(head.data).charAt(0).toUpperCase() + swimText(head.data).slice(1)}
          </Text>
        )}
        {until !== undefined && (
          <Text fontSize="lead" mb="3">
            {until}
          </Text>
        )}
        <Text fontSize="lead" mb="5">
          The pool opens after a test, not by the clock. Children and pets away; the robot stays out.
        </Text>
        <Text color="soft">
          {dayName(now, zone)}, {clock(now, zone)}
          {person && `, ${person}`}. Leave this up until the test is done.
        </Text>
      </Box>
    </Box>
  );
}
