import { Box, Grid, Text } from "@chakra-ui/react";
import { memo } from "react";
import type { Gauge, Marker } from "../api/types";
import { rangeText, unitOf, valueText } from "../lib/measures";
import { AimHandle, type Aiming } from "./AimHandle";
import { Track } from "./GaugeTrack";
import { PlainLink } from "./TextLink";
import { Why } from "./Why";

interface GaugeRowProps {
  lane: Gauge;
  history?: string | undefined;
  /** Given where the reader may aim elsewhere. */
  aiming?: Aiming | undefined;
}

/** One measure between the ropes; its name opens its history: the float, the plan's hollow float, the trail, and the verdict in words. */
export const GaugeRow = memo(function GaugeRow({ lane, history, aiming }: GaugeRowProps) {
  const planned = aiming?.planned ?? lane.planned;
  const managed = lane.verdict.code !== "not_managed" && lane.high !== null;
  const off = lane.verdict.code === "low" || lane.verdict.code === "high";
  return (
    <Grid
      role="row"
      templateColumns={{ base: "7.25rem minmax(0,1fr) 6.25rem", md: "8.5rem minmax(0,1fr) 14rem" }}
      templateAreas={{ base: '"name track figure" "more more more"', md: '"name track figure"' }}
      columnGap={{ base: "2", md: "5" }}
      minH={{ base: "52px", md: "56px" }}
      borderTop="1px solid"
      borderColor="hairline"
      _first={{ borderTop: "none" }}
    >
      <Name lane={lane} history={history} off={off} />
      <Box role="cell" gridArea="track" position="relative" minH="44px">
        <Box aria-hidden="true" position="absolute" inset="0">
          {managed && <Track lane={lane} planned={planned} />}
        </Box>
        {managed && aiming && lane.aim_step !== null && <AimHandle lane={lane} aiming={aiming} />}
      </Box>
      <Box
        role="cell"
        gridArea="figure"
        alignSelf="center"
        py="1"
        minW="0"
        textAlign={{ base: "right", md: "left" }}
      >
        <Box
          display="flex"
          justifyContent={{ base: "flex-end", md: "space-between" }}
          gap={{ base: "1", md: "3" }}
        >
          <Figure lane={lane} planned={planned} off={off} />
          <Why about={`${lane.name}: ${lane.verdict.text}`} working={lane.working} notes={othersOf(lane)} />
        </Box>
        <Box display={{ base: "none", md: "block" }}>
          <Said lane={lane} off={off} />
        </Box>
      </Box>
      <Box
        role="presentation"
        gridArea="more"
        display={{ base: "block", md: "none" }}
        pb="1"
        _empty={{ display: "none" }}
      >
        <More lane={lane} />
      </Box>
    </Grid>
  );
});

/** What other schools say stands behind "why" on a phone. */
function othersOf(lane: Gauge): readonly string[] {
  return lane.findings.filter(({ code }) => code === "other_schools").map(({ text }) => text);
}

interface NameProps {
  lane: Gauge;
  history: string | undefined;
  off: boolean;
}

const Name = memo(function Name({ lane, history, off }: NameProps) {
  return (
    <Box role="rowheader" gridArea="name" alignSelf="center" py="1">
      <Text fontSize={{ base: "body", md: "lead" }} fontWeight="650" lineHeight="1.2">
        {history === undefined || lane.reading === null ? (
          lane.name
        ) : (
          <PlainLink
            to={`${history}?measure=${lane.measure}`}
            color="ink"
            fontWeight="650"
            textDecoration={{ base: "none", md: "underline" }}
          >
            {lane.name}
          </PlainLink>
        )}
      </Text>
      <Text fontSize="note" color="soft" display={{ base: "none", md: "block" }}>
        {rangeText(lane.measure, lane.low, lane.high)}
      </Text>
      <Text
        fontSize="note"
        lineHeight="1.2"
        color={off ? "accent" : "soft"}
        display={{ base: "block", md: "none" }}
        aria-hidden="true"
      >
        {lane.verdict.text}
      </Text>
    </Box>
  );
});

const Said = memo(function Said({ lane, off }: { lane: Gauge; off: boolean }) {
  return (
    <>
      <Text fontSize="note" color={off ? "ink" : "soft"} fontWeight={off ? "600" : "400"}>
        {lane.verdict.text}
        {othersOf(lane).map((text) => (
          <Text as="span" key={text} color="soft" fontWeight="400">
            {" · "}
            {text}
          </Text>
        ))}
      </Text>
      <More lane={lane} />
    </>
  );
});

/** Whether the reading may be dosed by, and what else was found of it. */
function More({ lane }: { lane: Gauge }) {
  const said = lane.findings.filter(({ code }) => code !== "other_schools");
  return (
    <>
      {trustText(lane) !== "" && (
        <Text fontSize="note" fontWeight="600" lineHeight="1.3">
          {trustText(lane)}
        </Text>
      )}
      {said.map((finding) => (
        <Text key={finding.code} fontSize="note" color="soft" lineHeight="1.3">
          {finding.text}
        </Text>
      ))}
    </>
  );
}

/** What the float's hatching and its width say, in words. */
function trustText(lane: Gauge): string {
  if (lane.old) return `${lane.age_days} days old: test again`;
  return lane.coarse ? "too coarse to dose by" : "";
}

function Figure({ lane, planned, off }: { lane: Gauge; planned: Marker | null; off: boolean }) {
  if (lane.reading === null) {
    return (
      <Text fontSize="figure" lineHeight="1.2" color="soft">
        –
      </Text>
    );
  }
  const value = valueText(lane.measure, lane.reading.value);
  const narrow = value.length > 4 ? "lead" : "figure"; // "2,700" beside a lane on a phone
  return (
    <Text
      fontSize={{ base: narrow, md: "figure" }}
      fontWeight="700"
      lineHeight="1.2"
      color={off ? "accent" : "ink"}
    >
      {value}
      <Text
        as="span"
        fontSize="note"
        fontWeight="400"
        color="soft"
        ml="1"
        display={{ base: "none", md: "inline" }}
      >
        {unitOf(lane.measure)}
      </Text>
      {planned !== null && (
        <Text
          as="span"
          display={{ base: "block", md: "inline" }}
          fontSize="note"
          fontWeight="400"
          color="soft"
          whiteSpace="nowrap"
          ml={{ base: "0", md: "2" }}
        >
          → {valueText(lane.measure, planned.value)}
        </Text>
      )}
    </Text>
  );
}
