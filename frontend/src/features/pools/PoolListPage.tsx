import { Box, Flex, Grid, Heading, Link, Text } from "@chakra-ui/react";
import { useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState } from "react";
import { type PoolSort, poolPagesQuery } from "../../api/poolPages";
import type { PoolHeaderData, PoolPage } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { swimText, traitsText } from "../../components/PoolHeader";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { PlainLink } from "../../components/TextLink";
import { useMe } from "../../lib/me";
import { useStore } from "../../lib/store";
import { whenText } from "../../lib/times";
import { basinText, type Units, unitsStore } from "../../lib/units";
import { PutAway } from "./PutAway";

const SORTS = [
  { value: "attention", label: "Attention first" },
  { value: "name", label: "By name" },
  { value: "tested", label: "Longest untested first" },
] as const;
/** So few are seen at a glance; more are searched. */
const AT_A_GLANCE = 8;

/** All pools: swim answer and the one next thing of each, what asks for something first. */
export function PoolListPage() {
  const [find, setFind] = useState("");
  const [sort, setSort] = useState<PoolSort>("attention");
  const list = useInfiniteQuery(poolPagesQuery(useDeferredValue(find.trim()), sort));
  const me = useMe();
  const units = useStore(unitsStore);
  useEffect(() => {
    document.title = "Pools · Kumpan";
  }, []);
  if (list.isPending) return <Loading what="your pools" />;
  if (list.isError) return <Failed error={list.error} again={() => void list.refetch()} />;
  const pools = list.data.pages.flatMap((page) => page.pools);
  const unreadable = list.data.pages.flatMap((page) => page.unreadable);
  const none = pools.length + unreadable.length === 0;
  const office = me?.role === "office";
  return (
    <>
      <Flex justify="space-between" align="baseline" mb="4" wrap="wrap">
        <Heading as="h1" fontSize="title">
          Pools
        </Heading>
        {office && <PlainLink to="/pools/new">Set up a pool</PlainLink>}
      </Flex>
      {(pools.length > AT_A_GLANCE || find !== "" || sort !== "attention") && (
        <Grid gap="3" mb="4" maxW="40rem" templateColumns={{ base: "1fr", md: "1fr 14rem" }}>
          <TextField label="Find by name or place" value={find} onText={setFind} />
          <SelectField label="Order" value={sort} options={SORTS} onPick={(to) => setSort(to as PoolSort)} />
        </Grid>
      )}
      {none && find === "" && (office ? <FirstPool /> : <NoPools />)}
      {none && find !== "" && <Card>No pool is called so, and none lies there.</Card>}
      <Grid as="ul" listStyleType="none" p="0" gap="4" templateColumns={{ base: "1fr", md: "1fr 1fr" }}>
        {unreadable.map((pool) => (
          <Unreadable key={pool.id} pool={pool} />
        ))}
        {pools.map((head) => (
          <PoolCard key={head.id} head={head} units={units} />
        ))}
      </Grid>
      {list.hasNextPage && (
        <SideButton mt="4" disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
          {list.isFetchingNextPage ? "Loading …" : "Show more pools"}
        </SideButton>
      )}
      {office && <PutAway />}
      {office && (
        <Text mt="6">
          <PlainLink to="/files">Bring files in, take tables out</PlainLink>
        </Text>
      )}
      <Text mt={office ? "3" : "6"}>
        <PlainLink to="/practice">Practice on a pool that cannot be harmed</PlainLink>
      </Text>
    </>
  );
}

/** One pool that cannot be told does not take the others away. */
function Unreadable({ pool: { id, name, why } }: { pool: PoolPage["unreadable"][number] }) {
  return (
    <Caution as="li">
      <Text fontSize="lead" fontWeight="700">
        {name === "" ? "A pool without a set-up" : name}
      </Text>
      <Text mb="2">{why}</Text>
      <Link href={`/api/v1/pools/${id}/journal.jsonl`} download textDecoration="underline">
        Download its journal
      </Link>
    </Caution>
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
