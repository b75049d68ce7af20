import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { lazy, Suspense, useState } from "react";
import { useSearchParams } from "react-router";
import { historyQuery } from "../../api/queries";
import type { History, Measure } from "../../api/types";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { nameOf, unitOf, valueText } from "../../lib/measures";
import { useStore } from "../../lib/store";
import { clock, dayName } from "../../lib/times";
import { unitsStore } from "../../lib/units";

const HistoryChart = lazy(async () => ({ default: (await import("./HistoryChart")).HistoryChart }));

const MEASURES: readonly Measure[] = [
  "free_chlorine",
  "combined_chlorine",
  "ph",
  "total_alkalinity",
  "calcium_hardness",
  "cyanuric_acid",
  "salt",
];
// What moves by days; the rest moves by weeks.
const FAST: readonly Measure[] = ["free_chlorine", "combined_chlorine", "ph"];
const SPANS = [
  { value: "4", label: "4 weeks" },
  { value: "12", label: "12 weeks" },
  { value: "all", label: "All" },
] as const;
type Span = (typeof SPANS)[number]["value"];

/** One measure over time, as a chart or as a table. */
export function HistoryCard({ poolId, zone }: { poolId: string; zone: string }) {
  const units = useStore(unitsStore);
  const [search, setSearch] = useSearchParams();
  const asked = search.get("measure");
  const measure = MEASURES.find((known) => known === asked) ?? "free_chlorine";
  const [picked, setSpan] = useState<Span | null>(null);
  const span = picked ?? (FAST.includes(measure) ? "4" : "12");
  const [shown, setShown] = useState<"chart" | "table">("chart");
  const history = useQuery(historyQuery(poolId, measure, units));
  return (
    <Card as="section" aria-label="History" mb="5">
      <Heading as="h2" fontSize="lead" mb="3">
        History
      </Heading>
      <Flex gap="4" wrap="wrap" align="end" mb="3">
        <Box w={{ base: "100%", sm: "13rem" }}>
          <SelectField
            label="Measure"
            value={measure}
            options={MEASURES.map((value) => ({ value, label: titled(nameOf(value)) }))}
            onPick={(value) => setSearch({ measure: value }, { replace: true, preventScrollReset: true })}
          />
        </Box>
        <PickOne label="How far back" options={SPANS} value={span} onPick={setSpan} />
        <PickOne
          label="As"
          options={[
            { value: "chart", label: "Chart" },
            { value: "table", label: "Table" },
          ]}
          value={shown}
          onPick={setShown}
        />
      </Flex>
      {history.isPending && <Loading what="the history" />}
      {history.isError && <Failed error={history.error} again={() => void history.refetch()} />}
      {history.data && <Shown history={cut(history.data, span)} shown={shown} zone={zone} />}
    </Card>
  );
}

function Shown({ history, shown, zone }: { history: History; shown: "chart" | "table"; zone: string }) {
  if (history.points.length === 0)
    return <Text color="soft">{titled(nameOf(history.measure))} was not tested in this time.</Text>;
  if (shown === "table") return <HistoryTable history={history} zone={zone} />;
  return (
    <Box minH="20rem">
      <Suspense fallback={<Loading what="the chart" />}>
        <HistoryChart history={history} zone={zone} />
      </Suspense>
      <Text fontSize="note" color="soft" mt="2">
        Dots are tests, as tall as their doubt. Small marks below: what went in or was changed. The shaded
        tail is the forecast, nine times in ten within it; the pale strip is the range.
      </Text>
    </Box>
  );
}

function HistoryTable({ history, zone }: { history: History; zone: string }) {
  const rows = [
    ...history.points.map((point) => ({
      at: point.at,
      test: `${valueText(history.measure, point.value)} ${unitOf(history.measure)}`,
      done: "",
    })),
    ...history.marks.map((mark) => ({ at: mark.at, test: "", done: mark.text })),
  ].sort((one, other) => other.at.localeCompare(one.at));
  return (
    <Box
      overflowX="auto"
      maxH="24rem"
      overflowY="auto"
      tabIndex={0}
      role="region"
      aria-label="History as a table"
    >
      <Box as="table" w="100%" fontSize="body">
        <Box as="thead" textAlign="left" color="soft" fontSize="note">
          <tr>
            <th scope="col">When</th>
            <th scope="col">{titled(nameOf(history.measure))}</th>
            <th scope="col">Done</th>
          </tr>
        </Box>
        <tbody>
          {rows.map((row) => (
            <Box as="tr" key={row.at + row.done} borderTop="1px solid" borderColor="hairline">
              <Box as="td" py="2" pr="4" whiteSpace="nowrap">
                {dayName(row.at, zone)} {clock(row.at, zone)}
              </Box>
              <Box as="td" py="2" pr="4" fontWeight="650">
                {row.test}
              </Box>
              <Box as="td" py="2">
                {row.done}
              </Box>
            </Box>
          ))}
        </tbody>
      </Box>
    </Box>
  );
}

function titled(text: string): string {
  return text === "pH" ? text : text.charAt(0).toUpperCase() + text.slice(1);
}

function cut(history: History, span: Span): History {
  if (span === "all") return history;
  const since = Date.now() - Number(span) * 7 * 86_400_000;
  const later = <T extends { at: string }>(rows: readonly T[]) =>
    rows.filter((row) => new Date(row.at).getTime() >= since);
  return { ...history, points: later(history.points), marks: later(history.marks) };
}
