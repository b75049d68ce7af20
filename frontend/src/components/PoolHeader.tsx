import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { outlookQuery, poolQuery } from "../api/queries";
import type { PoolHeaderData } from "../api/types";
import { useMe } from "../lib/me";
import { useStore } from "../lib/store";
import { clock } from "../lib/times";
import { basinText, unitsStore } from "../lib/units";
import { standsOn } from "./FindingsCard";
import { Failed, Loading } from "./States";
import { PlainLink, TextLink } from "./TextLink";

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
function MayTheySwim({ head }: { head: PoolHeaderData }) {
  const answer = swimText(head);
  const { also, because } = head.swim;
  const said = (
    <>
      <Text as="span" fontWeight="700">
        May they swim?
      </Text>{" "}
      <Text as="span" data-testid="swim">
        {answer.charAt(0).toUpperCase() + answer.slice(1)}
      </Text>
      {also.length > 0 && (
        <Text as="span" color="soft" data-testid="swim-reasons">
          {" "}
          {also.map(({ text }) => text).join(" ")}
        </Text>
      )}
    </>
  );
  if (because.length === 0) return <Text>{said}</Text>;
  return (
    <Box as="details">
      <Box as="summary" cursor="pointer">
        {said}
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

const STATIONS: Record<string, string> = {
  slip: "/slip",
  sheet: "/sheet",
  board: "",
  rescue: "/rescue",
  care: "/care",
  identify: "/what-is-it",
};

/** A procedure stands under care, step by step. */
function whereDone(station: string): string {
  return station.startsWith("do/") ? `/care/${station}` : (STATIONS[station] ?? "");
}

const ABOUT_CHLORINE = ["low_now", "runs_low", "swim_again", "over_limit", "holds"];

/** When chlorine runs low; its line is there from the start, so that nothing jumps. */
function RunsLow({ poolId }: { poolId: string }) {
  const units = useStore(unitsStore);
  const outlook = useQuery(outlookQuery(poolId, units));
  const said = outlook.data?.sentences.find((sentence) => ABOUT_CHLORINE.includes(sentence.code));
  return (
    <Text minH="1.4em" data-testid="runs-low">
      {said && (
        <>
          <Text as="span" fontWeight="700">
            Ahead:
          </Text>{" "}
          {said.text}
        </>
      )}
    </Text>
  );
}

/** The sign of the pool: name, swim answer, the one next thing; and the way to its stations. */
export function PoolHeader({ poolId }: { poolId: string }) {
  const head = useQuery(poolQuery(poolId));
  const units = useStore(unitsStore);
  const name = head.data?.settings.name;
  const guest = useMe()?.role === "guest";
  useEffect(() => {
    if (name !== undefined) document.title = `${name} · Kumpan`;
  }, [name]);
  if (head.isPending) return <Loading what="the pool" />;
  if (head.isError) return <Failed error={head.error} again={() => void head.refetch()} />;
  const base = `/pools/${poolId}`;
  return (
    <Box mb="4" data-head>
      <Flex justify="space-between" align="baseline" wrap="wrap" columnGap="6">
        <Box>
          <Text as="span" fontSize="lead" fontWeight="700" mr="3">
            {head.data.settings.name}
          </Text>
          <Text as="span" color="soft" fontSize="note">
            {traitsText(head.data, basinText(head.data.basin, units))}
          </Text>
        </Box>
        <Flex
          as="nav"
          aria-label="Stations of this pool"
          columnGap={{ base: "3", md: "5" }}
          rowGap="0"
          wrap="wrap"
          data-noprint
        >
          <TextLink to={base} end>
            Today
          </TextLink>
          {guest ? (
            <>
              <TextLink to={`${base}/sheet`}>Sheet</TextLink>
              <TextLink to={`${base}/report`}>Report</TextLink>
              <TextLink to={`${base}/notice`}>Notice</TextLink>
            </>
          ) : (
            <>
              <TextLink to={`${base}/slip`}>Test</TextLink>
              <TextLink to={`${base}/sheet`}>Sheet</TextLink>
              <TextLink to={`${base}/care`}>Care</TextLink>
              <TextLink to={`${base}/season`}>Season</TextLink>
              <TextLink to={`${base}/log`}>Log</TextLink>
              <TextLink to={`${base}/setup`}>Pool</TextLink>
            </>
          )}
        </Flex>
      </Flex>
      <Heading as="h1" fontSize="title" lineHeight="1.25" mt="1">
        Next:{" "}
        <PlainLink to={base + whereDone(head.data.next.station)} color="ink" fontWeight="700">
          {head.data.next.text.charAt(0).toLowerCase() + head.data.next.text.slice(1)}
        </PlainLink>
      </Heading>
      <Text color="soft">{head.data.next.why}</Text>
      <Flex columnGap="6" rowGap="1" mt="1" wrap="wrap">
        <MayTheySwim head={head.data} />
        <RunsLow poolId={poolId} />
      </Flex>
      {head.data.notices.map((notice) => (
        <Text key={notice.code} mt="1" color="accent" fontWeight="600">
          {notice.text}
        </Text>
      ))}
    </Box>
  );
}
