import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { poolsQuery } from "../../api/queries";
import type { PoolHeaderData } from "../../api/types";
import { Card } from "../../components/Card";
import { swimText, traitsText } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useMe } from "../../lib/me";
import { useStore } from "../../lib/store";
import { whenText } from "../../lib/times";
import { basinText, type Units, unitsStore } from "../../lib/units";
import { PutAway } from "./PutAway";

/** All pools: swim answer and the one next thing of each. */
export function PoolListPage() {
  const pools = useQuery(poolsQuery());
  const me = useMe();
  const units = useStore(unitsStore);
  useEffect(() => {
    document.title = "Pools · Kumpan";
  }, []);
  if (pools.isPending) return <Loading what="your pools" />;
  if (pools.isError) return <Failed error={pools.error} again={() => void pools.refetch()} />;
  return (
    <>
      <Flex justify="space-between" align="baseline" mb="4" wrap="wrap">
        <Heading as="h1" fontSize="title">
          Pools
        </Heading>
        {me?.role === "office" && <PlainLink to="/pools/new">Set up a pool</PlainLink>}
      </Flex>
      {pools.data.length === 0 && (me?.role === "office" ? <FirstPool /> : <NoPools />)}
      <Grid as="ul" listStyleType="none" p="0" gap="4" templateColumns={{ base: "1fr", md: "1fr 1fr" }}>
        {pools.data.map((head) => (
          <PoolCard key={head.id} head={head} units={units} />
        ))}
      </Grid>
      {me?.role === "office" && <PutAway />}
      <Text mt="6">
        <PlainLink to="/practice">Practice on a pool that cannot be harmed</PlainLink>
      </Text>
    </>
  );
}

function NoPools() {
  return <Card>No pool was given to you yet. Ask your office.</Card>;
}

function FirstPool() {
  return (
    <Card maxW="40rem">
      <Text fontSize="lead" fontWeight="600" mb="2">
        No pool yet.
      </Text>
      <Text mb="3">
        Everything is dosed by volume, so the first thing is the pool's dimensions. It takes two minutes.
      </Text>
      <PlainLink to="/pools/new">Set up the first pool</PlainLink>
    </Card>
  );
}

function PoolCard({ head, units }: { head: PoolHeaderData; units: Units }) {
  return (
    <Card as="li">
      <PlainLink to={`/pools/${head.id}`} fontSize="lead" color="ink" fontWeight="700">
        {head.settings.name}
      </PlainLink>
      <Text color="soft" fontSize="note" mb="3">
        {traitsText(head, basinText(head.basin, units))}
      </Text>
      <Text>
        <Text as="span" fontWeight="700">
          Next:
        </Text>{" "}
        {head.next.text.charAt(0).toLowerCase() + head.next.text.slice(1)}
      </Text>
      <Text>
        <Text as="span" fontWeight="700">
          Swim:
        </Text>{" "}
        {swimText(head)}
      </Text>
      <Text color="soft" fontSize="note" mt="2">
        {head.last_test_at === null
          ? "Not tested yet."
          : `Tested ${whenText(head.last_test_at, head.settings.time_zone, new Date())}.`}
      </Text>
    </Card>
  );
}

export function LostPage() {
  return (
    <Box>
      <Heading as="h1" fontSize="title" mb="3">
        There is no such page
      </Heading>
      <PlainLink to="/">To the pools</PlainLink>
    </Box>
  );
}
