import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { peopleQuery, poolQuery, treatmentQuery } from "../../api/queries";
import { SideButton } from "../../components/Button";
import { swimText } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { personStore } from "../../lib/person";
import { useStore } from "../../lib/store";
import { clock, dayName } from "../../lib/times";
import { unitsStore } from "../../lib/units";

/** A notice for the gate: closed, why, until when, and the test it hangs on. Made to be printed. */
export function NoticePage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const head = useQuery(poolQuery(poolId));
  const sheet = useQuery(treatmentQuery(poolId, units));
  const people = useQuery(peopleQuery());
  const me = useStore(personStore);
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
        <Text fontSize="lead" mb="3">
          {swimText(head.data).charAt(0).toUpperCase() + swimText(head.data).slice(1)}
        </Text>
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
