import { Box, Flex, Grid, Heading, Link, Text } from "@chakra-ui/react";
import { useInfiniteQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState } from "react";
import { type PoolSort, poolPagesQuery, type Shown } from "../../api/poolPages";
import type { PoolHeaderData, PoolPage } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
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
import { MiniBoard, MiniHeads } from "./MiniBoard";
import { PutAway } from "./PutAway";

const SORTS = [
  { value: "attention", label: "Attention first" },
  { value: "name", label: "By name" },
  { value: "place", label: "By place" },
  { value: "tested", label: "Longest untested first" },
] as const;
/** So few are seen at a glance; more are searched. */
const AT_A_GLANCE = 8;

const CHIPS: readonly { value: Shown; label: string }[] = [
  { value: "all", label: "All" },
  { value: "asks", label: "Needs a hand" },
  { value: "untested", label: "Not tested for a week" },
];

/** All pools, each a board in miniature with its swim answer and the one next thing; attention first. */
export function PoolListPage() {
  const [find, setFind] = useState("");
  const [sort, setSort] = useState<PoolSort>("attention");
  const [show, setShow] = useState<Shown>("all");
  const list = useInfiniteQuery(poolPagesQuery(useDeferredValue(find.trim()), sort, show));
  const me = useMe();
  const units = useStore(unitsStore);
  useEffect(() => {
    document.title = "Pools · Kumpan";
  }, []);
  if (list.isPending) return <Loading what="your pools" />;
  if (list.isError) return <Failed error={list.error} again={() => void list.refetch()} />;
  const [first] = list.data.pages;
  const pools = list.data.pages.flatMap((page) => page.pools);
  const unreadable = list.data.pages.flatMap((page) => page.unreadable);
  const none = pools.length + unreadable.length === 0;
  const office = me?.role === "office";
  const all = first?.counts.all ?? 0;
  const many = all > AT_A_GLANCE || find !== "" || sort !== "attention" || show !== "all";
  return (
    <>
      <Flex justify="space-between" align="center" mb="3" gap="3" wrap="wrap">
        <Heading as="h1" fontSize="title">
          Pools
        </Heading>
        {office && (
          <SideButton asChild>
            <PlainLink to="/pools/new" color="ink" textDecoration="none">
              Set up a pool
            </PlainLink>
          </SideButton>
        )}
      </Flex>
      {many && (
        <Grid gap="3" mb="3" maxW="40rem" templateColumns={{ base: "1fr", md: "1fr 14rem" }}>
          <TextField label="Find by name or place" value={find} onText={setFind} />
          <SelectField label="Order" value={sort} options={SORTS} onPick={(to) => setSort(to as PoolSort)} />
        </Grid>
      )}
      {(all > 1 || show !== "all") && (
        <Flex role="group" aria-label="Which pools" gap="2" mb="3" wrap="wrap">
          {CHIPS.map(({ value, label }) => (
            <SideButton
              key={value}
              aria-pressed={show === value}
              onClick={() => setShow(value)}
              px="3"
              flexShrink="0"
            >
              {label} {first?.counts[value] ?? 0}
            </SideButton>
          ))}
        </Flex>
      )}
      {none && find === "" && show === "all" && (office ? <FirstPool /> : <NoPools />)}
      {none && find !== "" && <Card>No pool is called so, and none lies there.</Card>}
      {none && find === "" && show !== "all" && <Card>No pool is like that now.</Card>}
      {unreadable.length > 0 && (
        <Grid as="ul" listStyleType="none" p="0" gap="3" mb="3">
          {unreadable.map((pool) => (
            <Unreadable key={pool.id} pool={pool} />
          ))}
        </Grid>
      )}
      {pools.length > 0 && (
        <Card p="0" overflow="hidden">
          <Grid
            display={{ base: "none", lg: "grid" }}
            templateColumns={ROW}
            columnGap="5"
            px="5"
            pt="2"
            alignItems="end"
            aria-hidden="true"
          >
            <span />
            <MiniHeads />
          </Grid>
          <Box as="ul" listStyleType="none" p="0" m="0">
            {pools.map((head) => (
              <PoolRow key={head.id} head={head} units={units} />
            ))}
          </Box>
        </Card>
      )}
      {list.hasNextPage && (
        <SideButton mt="4" disabled={list.isFetchingNextPage} onClick={() => void list.fetchNextPage()}>
          {list.isFetchingNextPage ? "Loading …" : "Show more pools"}
        </SideButton>
      )}
      {office && <PutAway />}
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
        Four questions and the pool's size, since everything is dosed by volume; then the first test.
      </Text>
      <Flex gap="3" wrap="wrap">
        <MainButton asChild>
          <PlainLink to="/pools/new" color="card" textDecoration="none">
            Set up the first pool
          </PlainLink>
        </MainButton>
        <SideButton asChild minH="52px">
          <PlainLink to="/practice" color="ink" textDecoration="none">
            Practice first, on a pool that cannot be harmed
          </PlainLink>
        </SideButton>
      </Flex>
    </Card>
  );
}

const ROW = "15rem minmax(0, 1.3fr) 12rem minmax(0, 1fr) 1rem";

function PoolRow({ head, units }: { head: PoolHeaderData; units: Units }) {
  const { next, swim, settings, last_test_at } = head;
  const closed = swim.code === "no" || swim.code === "not_before";
  const answer = swimText(head);
  return (
    <Grid
      as="li"
      position="relative"
      templateColumns={{ base: "minmax(0,1fr) auto", lg: ROW }}
      templateAreas={{
        base: '"name tested" "traits traits" "swim swim" "board board" "next next"',
        lg: "none",
      }}
      columnGap="5"
      rowGap="1.5"
      px={{ base: "4", lg: "5" }}
      py="3"
      alignItems="center"
      borderTop="1px solid"
      borderColor="hairline"
      _first={{ borderTop: { base: "none", lg: "1px solid {colors.hairline}" } }}
      _hover={{ bg: "paper" }}
    >
      <Box display={{ base: "contents", lg: "block" }} minW="0">
        <PlainLink
          gridArea="name"
          to={`/pools/${head.id}`}
          fontSize="lead"
          color="ink"
          fontWeight="700"
          textDecoration="none"
          _after={{ content: '""', position: "absolute", inset: "0" }}
        >
          {settings.name}
        </PlainLink>
        <Text gridArea="traits" color="soft" fontSize="note" lineHeight="1.3" mt={{ base: "-1", lg: "0" }}>
          {[settings.place, traitsText(head, basinText(head.basin, units))].filter(Boolean).join(" · ")}
        </Text>
      </Box>
      <Text
        gridArea="tested"
        display={{ base: "block", lg: "none" }}
        color="soft"
        fontSize="note"
        textAlign="right"
      >
        {last_test_at === null ? "not tested" : whenText(last_test_at, settings.time_zone, new Date())}
      </Text>
      <Box gridArea={{ base: "board", lg: "auto" }}>
        <Box display={{ base: "block", lg: "none" }}>
          <MiniBoard marks={head.marks} labels />
        </Box>
        <Box display={{ base: "none", lg: "block" }}>
          <MiniBoard marks={head.marks} />
        </Box>
      </Box>
      <Box gridArea={{ base: "swim", lg: "auto" }} minW="0">
        <Text
          fontWeight="650"
          color={closed ? "accent" : "ink"}
          lineClamp={{ base: "2", lg: "4" }}
          fontSize={{ base: "body", lg: "note" }}
        >
          <Small>Swim?</Small>
          {answer.charAt(0).toUpperCase() + answer.slice(1)}
        </Text>
      </Box>
      <Box gridArea={{ base: "next", lg: "auto" }} minW="0">
        <Text fontWeight="650" lineClamp={{ base: "2", lg: "4" }}>
          <Small>Next</Small>
          {next.text}
        </Text>
        <Text display={{ base: "none", lg: "block" }} color="soft" fontSize="note">
          {last_test_at === null
            ? "not tested"
            : `tested ${whenText(last_test_at, settings.time_zone, new Date())}`}
        </Text>
      </Box>
      <Text display={{ base: "none", lg: "block" }} aria-hidden="true" color="soft">
        ›
      </Text>
    </Grid>
  );
}

function Small({ children }: { children: string }) {
  return (
    <Text as="span" display={{ lg: "block" }} color="soft" fontSize="note" fontWeight="400" mr="2">
      {children}
    </Text>
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
