import { Box, chakra, Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { useParams } from "react-router";
import { assessmentQuery, boardQuery, outlookQuery, poolQuery, todayQuery } from "../../api/queries";
import type { Board, Gauge, Marker, PoolHeaderData } from "../../api/types";
import { AheadStrip } from "../../components/AheadStrip";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { DueCard } from "../../components/DueCard";
import { FindingsCard } from "../../components/FindingsCard";
import { GaugeRow } from "../../components/GaugeRow";
import { MainAction } from "../../components/MainAction";
import { PoolHeader, SignShape } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { addressOf } from "../../lib/addresses";
import { coming } from "../../lib/coming";
import { useReadsOnly } from "../../lib/me";
import { useStore } from "../../lib/store";
import { whenText } from "../../lib/times";
import { temperatureText, type Units, unitsStore } from "../../lib/units";
import { useOncePainted } from "../../lib/useOncePainted";
import { PlanBeside, PlanForAims, RescueBeside } from "./PlanBeside";
import { useWhatIf } from "./useWhatIf";

/** Today, the home of a pool: the board, and beside it the sheet, what is due, what is ahead. */
export function BoardPage() {
  const { poolId = "" } = useParams();
  const board = useQuery(boardQuery(poolId));
  const head = useQuery(poolQuery(poolId));
  const units = useStore(unitsStore);
  const zone = head.data?.settings.time_zone ?? "UTC";
  const whatIf = useWhatIf(poolId, units);
  const sign = useQuery(outlookQuery(poolId, units));
  const due = useQuery(todayQuery(poolId));
  const judged = useQuery(assessmentQuery(poolId));
  const painted = useOncePainted();
  if (coming(head, sign))
    return (
      <>
        <SignShape whole />
        <Loading what="the board" />
      </>
    );
  if (!painted || coming(board, due, judged)) return <PoolHeader poolId={poolId} whole />;
  return (
    <>
      <PoolHeader poolId={poolId} whole />
      <Grid
        templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 20rem" }}
        templateAreas={{ base: '"board" "side" "ahead"', lg: '"board side" "ahead side"' }}
        templateRows={{ lg: "auto 1fr" }}
        gap="5"
        alignItems="start"
      >
        <Box gridArea="board">
          {board.isError && <Failed error={board.error} again={() => void board.refetch()} />}
          {board.data?.tested_at === null && <NotTested poolId={poolId} />}
          {board.data && board.data.tested_at !== null && (
            <Lanes board={board.data} poolId={poolId} zone={zone} units={units} whatIf={whatIf} />
          )}
        </Box>
        <Flex gridArea="side" direction="column" gap="5">
          <DueCard poolId={poolId} />
          <Box order={{ lg: "-1" }} _empty={{ display: "none" }}>
            <FindingsCard poolId={poolId} />
          </Box>
        </Flex>
        <Flex gridArea="ahead" direction="column" gap="5">
          {/* The plan takes longest to compute: under the board it moves nothing that is seen. */}
          {board.data?.tested_at !== null && head.data?.last_test_at !== null && (
            <Box>
              {head.data && (head.data.treating || head.data.next.station === "rescue") ? (
                <RescueBeside poolId={poolId} head={head.data} />
              ) : whatIf.answer === null ? (
                <PlanBeside poolId={poolId} zone={zone} units={units} />
              ) : (
                <PlanForAims poolId={poolId} zone={zone} whatIf={whatIf} />
              )}
            </Box>
          )}
          {board.data?.tested_at !== null && <AheadStrip poolId={poolId} zone={zone} />}
        </Flex>
      </Grid>
      {head.data && <NextAction head={head.data} />}
    </>
  );
}

/** The one next thing as a button under the thumb; on a desk its words at the head lead there. */
function NextAction({ head }: { head: PoolHeaderData }) {
  if (useReadsOnly()) return null;
  const { station, code } = head.next;
  const label = code === "nothing" ? "Test the water" : (ACTIONS[station] ?? "Go on");
  return (
    <MainAction display={{ base: "block", lg: "none" }}>
      <MainButton asChild w="100%">
        <PlainLink to={whereNext(head)} color="card" textDecoration="none">
          {label}
        </PlainLink>
      </MainButton>
    </MainAction>
  );
}

const ACTIONS: Record<string, string> = {
  slip: "Test the water",
  sheet: "Open the plan",
  rescue: "Open the rescue",
  care: "Start the visit",
  identify: "Look closer",
  board: "Read the board",
};

/** Care that is due is done as one visit. */
function whereNext(head: PoolHeaderData): string {
  const base = `/pools/${head.id}`;
  return head.next.station === "care" ? `${base}/visit` : (addressOf(head.id, head.next.station) ?? base);
}

function NotTested({ poolId }: { poolId: string }) {
  const readsOnly = useReadsOnly();
  return (
    <Card>
      <Text fontSize="lead" fontWeight="600" mb="2">
        This pool is not tested yet.
      </Text>
      <Text mb="3">
        Run the pump for 10 minutes, take a sample elbow-deep away from the returns, and type what the kit
        says.
      </Text>
      {!readsOnly && <PlainLink to={`/pools/${poolId}/test`}>Enter the first test</PlainLink>}
    </Card>
  );
}

interface LanesProps {
  board: Board;
  poolId: string;
  zone: string;
  units: Units;
  whatIf: ReturnType<typeof useWhatIf>;
}

interface AimedLaneProps {
  lane: Gauge;
  poolId: string;
  whatIf: LanesProps["whatIf"];
  readsOnly: boolean;
}

/** One lane with its handle; kept apart so that a moved float redraws only what it moves. */
function AimedLane({ lane, poolId, whatIf, readsOnly }: AimedLaneProps) {
  const { answer, place, settle, step } = whatIf;
  const planned = answer?.planned[lane.measure] ?? null;
  const active = answer?.aims[lane.measure] !== undefined;
  const aiming = useMemo(
    () => ({
      planned: planned !== null && differs(planned, lane) ? planned : null,
      active,
      onPlace: (to: number) => place(lane.measure, to),
      onStep: (direction: 1 | -1) => step(lane, direction),
      onSettle: () => settle(lane.measure),
    }),
    [planned, active, lane, place, settle, step],
  );
  const aside = answer !== null;
  const shown = useMemo(() => (aside ? { ...lane, planned: null } : lane), [aside, lane]);
  return (
    <GaugeRow
      lane={shown}
      history={readsOnly || lane.measure === "saturation_index" ? undefined : `/pools/${poolId}/log`}
      aiming={readsOnly ? undefined : aiming}
    />
  );
}

/** Whether a float stands visibly elsewhere than the reading: a hundredth of a band. */
function differs(planned: Marker, lane: Gauge): boolean {
  return lane.reading === null || Math.abs(planned.at.position - lane.reading.at.position) > 0.01;
}

function Lanes({ board, poolId, zone, units, whatIf }: LanesProps) {
  const readsOnly = useReadsOnly();
  return (
    <>
      <Card p={{ base: "3", md: "4" }} role="table" aria-label="Lane board">
        <Flex
          display={{ base: "none", md: "grid" }}
          gridTemplateColumns="8.5rem minmax(0,1fr) 14rem"
          columnGap="5"
          fontSize="note"
          fontWeight="600"
          role="presentation"
        >
          <span />
          <Grid templateColumns="repeat(3, 1fr)" textAlign="center" color="rope">
            <Text color="soft">low</Text>
            <Text whiteSpace="nowrap" mx="-4">
              between the ropes
            </Text>
            <Text color="soft">high</Text>
          </Grid>
          <span />
        </Flex>
        <Box role="rowgroup">
          {board.lanes.map((lane) => (
            <AimedLane key={lane.measure} lane={lane} poolId={poolId} whatIf={whatIf} readsOnly={readsOnly} />
          ))}
        </Box>
      </Card>
      <Box mt="3" color="soft" fontSize="note">
        <Text>
          Tested {board.tested_at === null ? "" : whenText(board.tested_at, zone, new Date())}
          {board.temperature_c !== null && ` at ${temperatureText(board.temperature_c, units)}`}.{" "}
          {board.school_name} ranges.
        </Text>
        {board.findings.map((finding) => (
          <Text key={finding.code} color="ink" fontWeight="600">
            {finding.text}
          </Text>
        ))}
        {board.poured_since.length > 0 && (
          <Text color="ink" fontWeight="600">
            Since this test:{" "}
            {board.poured_since
              .map((pour) => `${pour.label} at ${whenText(pour.at, zone, new Date())}`)
              .join(", ")}
            . Test again for the board to follow.
          </Text>
        )}
        <chakra.details>
          <chakra.summary
            minH="44px"
            display="inline-flex"
            alignItems="center"
            cursor="pointer"
            textDecoration="underline"
          >
            How to read the board
          </chakra.summary>
          <Text>
            A solid float is the reading, as wide as its doubt; a hollow one is where the plan leads.
            {!readsOnly && " Move it, or nudge it with the arrow keys, to aim elsewhere."}
          </Text>
        </chakra.details>
      </Box>
    </>
  );
}
