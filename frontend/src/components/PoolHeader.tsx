import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { outlookQuery, poolQuery } from "../api/queries";
import type { PoolHeaderData } from "../api/types";
import { addressOf } from "../lib/addresses";
import { lastPoolStore } from "../lib/lastPool";
import { useStore } from "../lib/store";
import { clock } from "../lib/times";
import { basinText, type Units, unitsStore } from "../lib/units";
import { DoLink } from "./DoLink";
import { standsOn } from "./FindingsCard";
import { Failed, Shape } from "./States";
import { TopTools } from "./TopTools";

const CHLORINATION: Record<string, string> = {
  liquid: "liquid chlorine",
  granules: "granules",
  tablets: "tablets",
  salt_cell: "salt cell",
  mineral: "mineral unit",
};

const SURFACE: Record<string, string> = { fibreglass: "fiberglass" };

export function traitsText(head: PoolHeaderData, volume: string): string {
  const { surface, chlorination, filter, indoor } = head.equipment.traits;
  const parts: string[] = [
    volume,
    SURFACE[surface] ?? surface,
    CHLORINATION[chlorination] ?? chlorination,
    `${filter === "de" ? "DE" : filter} filter`,
  ];
  return (indoor ? [...parts, "indoor"] : parts).join(" · ");
}

export function swimText(head: PoolHeaderData): string {
  const { code, text, not_before } = head.swim;
  if (code === "not_before" && not_before) {
    return `not before ${clock(not_before, head.settings.time_zone)}: ${text}`;
  }
  return text.charAt(0).toLowerCase() + text.slice(1);
}

/** The answer, and what else stands against it or is said beside it; one tap shows what it stands on. */
function MayTheySwim({ head, whole }: { head: PoolHeaderData; whole: boolean }) {
  const answer = swimText(head);
  const { also, because, code } = head.swim;
  // What is said beside a yes is read with it.
  const folds = whole && code !== "yes" && because.length > 0;
  const said = (
    <>
      <Text as="span" color="soft" fontSize="note" mr="2">
        Swim?
      </Text>
      <Text as="span" fontWeight="650" data-testid="swim">
        {answer.charAt(0).toUpperCase() + answer.slice(1)}
      </Text>
      {also.length > 0 && (
        <Text as="span" color="soft" data-testid="swim-reasons" {...(folds && { css: FOLDED_ON_A_PHONE })}>
          {" "}
          {also.map(({ text }) => text).join(" ")}
        </Text>
      )}
      {folds && also.length > 0 && (
        <Text as="span" color="soft" css={WHILE_FOLDED}>
          {` And ${also.length} more.`}
        </Text>
      )}
    </>
  );
  const short = whole ? {} : { css: { "details:not([open]) > &": ONE_LINE } };
  if (because.length === 0) return <Text css={whole ? {} : ONE_LINE}>{said}</Text>;
  return (
    <Box as="details" minW="0">
      <Box as="summary" cursor="pointer" listStyleType="none" {...short}>
        {said}
        <Text as="span" aria-hidden="true" color="soft">
          {" "}
          ▾
        </Text>
      </Box>
      <Box as="ul" listStyleType="none" p="0" m="0" pl="4" fontSize="note" color="soft">
        {because.map((reason) => (
          <li key={reason.code + reason.text}>
            {reason.text} Stands on: {standsOn(reason)}
          </li>
        ))}
      </Box>
    </Box>
  );
}

// The first reason closes the pool; on a phone the board comes before all the others.
const FOLDED_ON_A_PHONE = { "details:not([open]) &": { display: { base: "none", md: "inline" } } };
const WHILE_FOLDED = {
  display: "none",
  "details:not([open]) &": { display: { base: "inline", md: "none" } },
};
const ONE_LINE = { overflow: "hidden", whiteSpace: "nowrap", textOverflow: "ellipsis" };

// Something was written: the answer of before is no answer, and keeps its place so that nothing moves. Most come so
// soon that nothing is seen of it.
const WHILE_JUDGED = { visibility: "hidden", transition: "visibility 0s linear 200ms" };

const ABOUT_CHLORINE = ["low_now", "runs_low", "swim_again", "over_limit", "holds"];

/** When chlorine runs low, in the same paragraph as why: what is read first is one block, and drawn first. */
function RunsLow({ poolId }: { poolId: string }) {
  const units = useStore(unitsStore);
  const outlook = useQuery(outlookQuery(poolId, units));
  const said = outlook.data?.sentences.find((sentence) => ABOUT_CHLORINE.includes(sentence.code));
  if (said === undefined) return null;
  return (
    <>
      <br />
      <Text as="span" fontWeight="700">
        Ahead:
      </Text>{" "}
      {said.text}
    </>
  );
}

interface PoolHeaderProps {
  poolId: string;
  /** Today: the next thing in the largest words, why, and what is ahead. */
  whole?: boolean;
}

/** The sign of the pool: name, swim answer, the one next thing; small, but on Today. */
export function PoolHeader({ poolId, whole = false }: PoolHeaderProps) {
  const head = useQuery(poolQuery(poolId));
  const anew = useQueryClient().getQueryState(poolQuery(poolId).queryKey)?.isInvalidated && head.isFetching;
  const units = useStore(unitsStore);
  const name = head.data?.settings.name;
  useEffect(() => {
    if (name === undefined) return;
    document.title = `${name} · Kumpan`;
    lastPoolStore.set(poolId);
  }, [name, poolId]);
  if (head.isPending) return <SignShape whole={whole} />;
  if (head.isError) return <Failed error={head.error} again={() => void head.refetch()} />;
  const { next, settings, notices } = head.data;
  const to = addressOf(poolId, next.station) ?? `/pools/${poolId}`;
  const what = next.text.charAt(0).toLowerCase() + next.text.slice(1);
  return (
    <Box
      mb="4"
      pb="2"
      mx={{ base: "-4", md: "-6" }}
      mt={{ base: "-3", md: "-5" }}
      px={{ base: "4", md: "6" }}
      pt={{ base: "0", lg: "3" }}
      borderBottom={whole ? "none" : "1px solid"}
      borderColor="hairline"
      data-head
    >
      <Flex justify="space-between" align="center" gap="3" mr={{ base: "-3", md: "0" }}>
        <Flex align="baseline" columnGap="3" minW="0" wrap={{ base: "nowrap", md: "wrap" }}>
          <Text as="span" fontSize="lead" fontWeight="700" truncate>
            {settings.name}
          </Text>
          <Text as="span" color="soft" fontSize="note" flexShrink="0">
            <Traits head={head.data} units={units} />
          </Text>
        </Flex>
        <TopTools />
      </Flex>
      <Box aria-busy={anew} css={anew ? WHILE_JUDGED : {}} data-testid="judged">
        <MayTheySwim head={head.data} whole={whole} />
        {whole ? (
          <Box mt="2">
            <Text color="soft" fontSize="note">
              Next
            </Text>
            <Heading as="h1" fontSize={{ base: "title", md: "1.75rem" }} lineHeight="1.2" fontWeight="750">
              <DoLink
                to={to}
                color="ink"
                fontWeight="750"
                textDecoration="none"
                _hover={{ textDecoration: "underline" }}
              >
                {next.text}
              </DoLink>
            </Heading>
            <Text>
              <Text as="span" color="soft">
                {next.why}
              </Text>
              <RunsLow poolId={poolId} />
            </Text>
          </Box>
        ) : (
          <Text css={ONE_LINE}>
            <Text as="span" color="soft" fontSize="note" mr="2">
              Next
            </Text>
            <DoLink to={to} color="ink" fontWeight="600">
              {what}
            </DoLink>
          </Text>
        )}
      </Box>
      {notices.map((notice) => (
        <Text key={notice.code} mt="1" color="accent" fontWeight="600">
          {notice.text}
        </Text>
      ))}
    </Box>
  );
}

function Traits({ head, units }: { head: PoolHeaderData; units: Units }) {
  const volume = basinText(head.basin, units);
  return (
    <>
      {volume}
      <Text as="span" display={{ base: "none", md: "inline" }}>
        {traitsText(head, volume).slice(volume.length)}
      </Text>
    </>
  );
}

/** The room that the sign takes, before it is known. */
export function SignShape({ whole = false }: { whole?: boolean }) {
  return (
    <Box
      // As high as the sign that comes, less what that one reaches into the page's edge on a phone.
      minH={whole ? "11.5rem" : { lg: "3.7rem" }}
      h={whole ? undefined : { base: "86px", lg: "auto" }}
      overflow="hidden"
      mb="4"
      role="status"
      aria-label="Loading the pool"
    >
      <Shape w="60%" h="1.25rem" mt="3" />
      <Shape w="80%" mt="2.5" />
      <Shape w="70%" mt="2.5" display={whole ? "block" : { base: "block", lg: "none" }} />
    </Box>
  );
}
