import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import { historiesQuery, seasonQuery } from "../../api/queries";
import type { Measure, MeasureHistory, Season } from "../../api/types";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { amountText, nameOf } from "../../lib/measures";
import { useStore } from "../../lib/store";
import { clock, dayName } from "../../lib/times";
import { unitsStore } from "../../lib/units";
import { reach, titled } from "./chartWords";
import { TimeChart } from "./TimeChart";

// What moves by days; the rest moves by weeks.
const FAST: readonly Measure[] = ["free_chlorine", "combined_chlorine", "ph"];
const SPANS = [
  { value: "4", label: "4 weeks" },
  { value: "12", label: "12 weeks" },
  { value: "all", label: "All" },
] as const;
type Span = (typeof SPANS)[number]["value"];

const TOGETHER = "all";

/** Every measure over time with all that was done: as a chart on one time axis, or as a table. */
export function HistoryCard({ poolId, zone }: { poolId: string; zone: string }) {
  const [search, setSearch] = useSearchParams();
  const histories = useQuery(historiesQuery(poolId));
  const season = useQuery(seasonQuery(poolId));
  const named = histories.data?.filter(({ measure }) => measure === search.get("measure")) ?? [];
  const [only] = named;
  const [picked, setSpan] = useState<Span | null>(null);
  const span = picked ?? (only && FAST.includes(only.measure) ? "4" : "12");
  const [as, setAs] = useState<"chart" | "table">("chart");
  return (
    <Card as="section" aria-label="History" mb="5">
      <Heading as="h2" fontSize="lead" mb="3">
        History
      </Heading>
      <Flex gap="4" wrap="wrap" align="end" mb="3">
        <Box w={{ base: "100%", sm: "13rem" }}>
          <SelectField
            label="Measure"
            value={only?.measure ?? TOGETHER}
            options={[
              { value: TOGETHER, label: "All together" },
              ...(histories.data ?? []).map(({ measure }) => ({
                value: measure,
                label: titled(nameOf(measure)),
              })),
            ]}
            onPick={(value) =>
              setSearch(value === TOGETHER ? {} : { measure: value }, {
                replace: true,
                preventScrollReset: true,
              })
            }
          />
        </Box>
        <PickOne label="How far back" options={SPANS} value={span} onPick={setSpan} />
        <PickOne
          label="As"
          options={[
            { value: "chart", label: "Chart" },
            { value: "table", label: "Table" },
          ]}
          value={as}
          onPick={setAs}
        />
      </Flex>
      {(histories.isPending || season.isPending) && <Loading what="the history" />}
      {histories.isError && <Failed error={histories.error} again={() => void histories.refetch()} />}
      {season.isError && <Failed error={season.error} again={() => void season.refetch()} />}
      {histories.data && season.data && (
        <Shown
          key={`${span} ${only?.measure ?? TOGETHER}`}
          histories={only ? named : histories.data}
          season={season.data}
          span={span}
          as={as}
          zone={zone}
        />
      )}
    </Card>
  );
}

interface ShownProps {
  histories: readonly MeasureHistory[];
  season: Season;
  span: Span;
  as: "chart" | "table";
  zone: string;
}

function Shown({ histories, season, span, as, zone }: ShownProps) {
  const now = new Date(season.now_at).getTime();
  const since = span === "all" ? 0 : now - Number(span) * 7 * 86_400_000;
  const later = ({ at }: { at: string }) => new Date(at).getTime() >= since;
  if (!histories.some(({ points }) => points.some(later))) {
    const what = histories.length === 1 && histories[0] ? titled(nameOf(histories[0].measure)) : "The water";
    return <Text color="soft">{what} was not tested in this time.</Text>;
  }
  if (as === "table") return <HistoryTable histories={histories} season={season} later={later} zone={zone} />;
  const { from, to } = reach(histories, season.marks, now);
  return (
    <Box minH="20rem">
      <TimeChart
        histories={histories}
        marks={season.marks}
        zone={zone}
        now={now}
        first={{ from: Math.max(from, since), to }}
      />
      <Text fontSize="note" color="soft" mt="2">
        Dots are tests, as tall as their doubt. Below: what was added or done. The shaded tail is the
        forecast, nine times in ten within it; the pale strip is the range.
      </Text>
    </Box>
  );
}

interface TableProps {
  histories: readonly MeasureHistory[];
  season: Season;
  later: (row: { at: string }) => boolean;
  zone: string;
}

function HistoryTable({ histories, season, later, zone }: TableProps) {
  const units = useStore(unitsStore);
  const done = new Map<string, string[]>();
  for (const mark of season.marks) {
    if (mark.row === "tests" || mark.row === "due" || !later(mark)) continue;
    done.set(mark.at, [...(done.get(mark.at) ?? []), mark.text]);
  }
  const tested = histories.map(({ measure, points }) => ({
    measure,
    values: new Map(points.filter(later).map(({ at, value }) => [at, amountText(measure, value, units)])),
  }));
  const times = [...new Set([...done.keys(), ...tested.flatMap(({ values }) => [...values.keys()])])];
  return (
    <Box
      overflowX="auto"
      maxH="24rem"
      overflowY="auto"
      tabIndex={0}
      role="region"
      aria-label="History as a table"
    >
      <Box as="table" w="100%" fontSize="body" css={{ "& th, & td": { paddingRight: "1rem" } }}>
        <Box as="thead" textAlign="left" color="soft" fontSize="note">
          <tr>
            <th scope="col">When</th>
            {tested.map(({ measure }) => (
              <th scope="col" key={measure}>
                {titled(nameOf(measure))}
              </th>
            ))}
            <th scope="col">Done</th>
          </tr>
        </Box>
        <tbody>
          {times
            .sort((one, other) => other.localeCompare(one))
            .map((at) => (
              <Box as="tr" key={at} borderTop="1px solid" borderColor="hairline">
                <Box as="td" py="2" whiteSpace="nowrap">
                  {dayName(at, zone)} {clock(at, zone)}
                </Box>
                {tested.map(({ measure, values }) => (
                  <Box as="td" key={measure} py="2" fontWeight="650" whiteSpace="nowrap">
                    {values.get(at)}
                  </Box>
                ))}
                <Box as="td" py="2">
                  {done.get(at)?.join(", ")}
                </Box>
              </Box>
            ))}
        </tbody>
      </Box>
    </Box>
  );
}
