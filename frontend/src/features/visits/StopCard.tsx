import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import type { Stop } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { swimText, traitsText } from "../../components/PoolHeader";
import { PlainLink } from "../../components/TextLink";
import { nameOf } from "../../lib/measures";
import { clock } from "../../lib/times";
import { basinText, type Units } from "../../lib/units";

interface StopCardProps {
  stop: Stop;
  number: number;
  units: Units;
  isNext: boolean;
  canMove: { up: boolean; down: boolean };
  /** It stands on this day alone, by the weeks ahead; the weekly round is changed without it. */
  todayOnly?: boolean;
  busy: boolean;
  onStart: () => void;
  onMove: (by: 1 | -1) => void;
  onRemove: () => void;
}

/** One stop: what is due, what goes in, what the next visit will find. The next one stands out. */
export function StopCard(props: StopCardProps) {
  const { stop, number, units, isNext, canMove, todayOnly, busy, onStart, onMove, onRemove } = props;
  const { head, done } = stop;
  const name = head.settings.name;
  return (
    <Card as="li" borderColor={isNext ? "ink" : "hairline"} borderWidth={isNext ? "2px" : "1px"}>
      <Grid
        templateColumns={{ base: "1.75rem minmax(0,1fr)", md: "2.5rem minmax(0,1fr)" }}
        columnGap={{ base: "2", md: "3" }}
      >
        <Text fontSize="title" fontWeight="700" lineHeight="1.2" color={done ? "soft" : "ink"}>
          {done ? "✓" : number}
        </Text>
        <Box>
          <PlainLink to={`/pools/${head.id}`} fontSize="lead" color="ink" fontWeight="700">
            {name}
          </PlainLink>
          <Text color="soft" fontSize="note">
            {todayOnly && "Today only. "}
            {stop.about_at !== null && `About ${clock(stop.about_at, head.settings.time_zone)}. `}
            {traitsText(head, basinText(head.basin, units))}
          </Text>
          {done === null ? (
            <Needs stop={stop} isNext={isNext} />
          ) : (
            <Text mt="1">
              Done at {clock(done.at, head.settings.time_zone)}
              {done.note && `: ${done.note}`}.{" "}
              <PlainLink to={`/pools/${head.id}/report`} data-noprint>
                Report for the owner
              </PlainLink>
            </Text>
          )}
          <Flex gap="2" mt="3" wrap="wrap" data-noprint>
            {isNext && (
              <MainButton minH="52px" onClick={onStart}>
                {number === 1 ? "Start here" : "On to this stop"}
              </MainButton>
            )}
            {!isNext && done === null && <SideButton onClick={onStart}>Start here</SideButton>}
            {done === null && (
              <PlainLink
                to={`/pools/${head.id}/visit?kind=stop`}
                display="inline-flex"
                alignItems="center"
                minH="44px"
              >
                As one list
              </PlainLink>
            )}
            <Flex gap="2">
              <SideButton
                px="3"
                aria-label={`${name} earlier`}
                disabled={!canMove.up || busy}
                onClick={() => onMove(-1)}
              >
                ↑
              </SideButton>
              <SideButton
                px="3"
                aria-label={`${name} later`}
                disabled={!canMove.down || busy}
                onClick={() => onMove(1)}
              >
                ↓
              </SideButton>
              {!todayOnly && (
                <SideButton
                  px="3"
                  aria-label={`Take ${name} off this round`}
                  disabled={busy}
                  onClick={onRemove}
                >
                  ×
                </SideButton>
              )}
            </Flex>
          </Flex>
        </Box>
      </Grid>
    </Card>
  );
}

/** On a phone the stops after the next one say no more of the days between than whether it holds. */
function Needs({ stop, isNext }: { stop: Stop; isNext: boolean }) {
  const later = { base: isNext ? "block" : "none", md: "block" };
  const { head, tests, care, doses, next_visit, drift, last_visit } = stop;
  const closed = head.swim.code !== "yes";
  return (
    <Grid
      mt="2"
      gap="1"
      as="dl"
      templateColumns={{ base: "3.75rem minmax(0,1fr)", md: "5.5rem minmax(0,1fr)" }}
      columnGap={{ base: "2", md: "3" }}
    >
      <Row name="Swim">
        {swimText(head)}
        {closed && (
          <>
            {" "}
            <PlainLink to={`/pools/${head.id}/notice`} data-noprint>
              No-swim notice
            </PlainLink>
          </>
        )}
      </Row>
      <Row name="Test">
        {tests.length === 0 ? "nothing due" : tests.map(({ measure }) => nameOf(measure)).join(", ")}
      </Row>
      {care.length > 0 && (
        <Row name="Care">
          {care.map((title) => title.charAt(0).toLowerCase() + title.slice(1)).join(", ")}
        </Row>
      )}
      <Row name="Pour">{doses.length === 0 ? "nothing by the last test" : doses.join("; ")}</Row>
      {next_visit.length > 0 && (
        <Row name="Next">
          {next_visit.slice(0, 2).map((one) => (
            <Text key={one.code} fontWeight={one.code === "will_not_hold" ? "600" : "400"}>
              {one.text.replace(/^Next visit /, "Visit ")}
            </Text>
          ))}
          {next_visit.slice(2).map((one) => (
            <Text key={one.code} fontSize="note" color="soft" display={later}>
              {one.text}
            </Text>
          ))}
        </Row>
      )}
      {drift.length > 0 && <Row name="Drifts">{drift.map((one) => one.text).join(" ")}</Row>}
      {last_visit !== null && (last_visit.needs_return || last_visit.trade !== "") && (
        <Row name="Open">
          {[last_visit.note, last_visit.trade && `licensed trade: ${last_visit.trade}`]
            .filter(Boolean)
            .join("; ")}
        </Row>
      )}
    </Grid>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <>
      <Text as="dt" color="soft" fontSize="note" lineHeight="1.6">
        {name}
      </Text>
      <Text as="dd" m="0">
        {children}
      </Text>
    </>
  );
}
