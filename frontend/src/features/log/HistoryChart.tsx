import { Box } from "@chakra-ui/react";
import {
  Area,
  CartesianGrid,
  ComposedChart,
  ErrorBar,
  Line,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from "recharts";
import type { History } from "../../api/types";
import { nameOf, unitOf, valueText } from "../../lib/measures";
import { roundExtent } from "../../lib/scale";
import { clock, dayName, dayOfMonth } from "../../lib/times";

const color = (name: string) => `var(--chakra-colors-${name})`;

interface Row {
  at: number;
  value?: number;
  doubt?: [number, number];
  likely?: number;
  band?: [number, number];
  mark?: number;
  text?: string;
}

/** Tests, what was done, and the forecast band of one measure. Loaded only when it is looked at. */
export function HistoryChart({ history, zone }: { history: History; zone: string }) {
  const { measure, low, high, points, marks, ahead } = history;
  const tests: Row[] = points.map((point) => ({
    at: new Date(point.at).getTime(),
    value: point.value,
    doubt: [point.value - point.low, point.high - point.value],
  }));
  const forecast: Row[] = ahead.map((point) => ({
    at: new Date(point.at).getTime(),
    likely: point.likely,
    band: [point.low, point.high],
  }));
  const ticks = extent(history);
  const [bottom = 0, top = 1] = [ticks[0], ticks.at(-1)];
  const done: Row[] = marks.map((mark) => ({
    at: new Date(mark.at).getTime(),
    mark: bottom,
    text: mark.text,
  }));
  const rows = [...tests, ...forecast].sort((one, other) => one.at - other.at);
  const now = forecast[0]?.at;
  return (
    <Box
      h="20rem"
      role="img"
      aria-label={`${nameOf(measure)} over time: ${points.length} tests, last ${valueText(measure, points.at(-1)?.value ?? 0)} ${unitOf(measure)}`}
    >
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart
          data={rows}
          margin={{ top: 8, right: 16, bottom: 4, left: 0 }}
          accessibilityLayer={false}
        >
          <CartesianGrid stroke={color("hairline")} vertical={false} />
          <XAxis
            dataKey="at"
            type="number"
            domain={["dataMin", "dataMax"]}
            tickFormatter={(at: number) => dayOfMonth(at, zone)}
            stroke={color("soft")}
            tick={{ fill: color("soft"), fontSize: 14 }}
            minTickGap={40}
          />
          <YAxis
            domain={[bottom, top]}
            ticks={ticks}
            interval={0}
            allowDataOverflow
            width={56}
            stroke={color("soft")}
            tick={{ fill: color("soft"), fontSize: 14 }}
            tickFormatter={(value: number) => valueText(measure, value)}
          />
          {low !== null && high !== null && (
            <ReferenceArea y1={low} y2={high} fill={color("band")} fillOpacity={0.9} ifOverflow="hidden" />
          )}
          {now !== undefined && (
            <ReferenceLine
              x={now}
              stroke={color("soft")}
              strokeDasharray="3 4"
              label={{ value: "now", fill: color("soft"), position: "insideTopLeft" }}
            />
          )}
          <Area
            dataKey="band"
            stroke="none"
            fill={color("rope")}
            fillOpacity={0.3}
            isAnimationActive={false}
            connectNulls={false}
          />
          <Line
            dataKey="likely"
            stroke={color("rope")}
            strokeWidth={2.5}
            strokeDasharray="6 4"
            dot={false}
            isAnimationActive={false}
          />
          <Line
            dataKey="value"
            stroke={color("ink")}
            strokeWidth={1}
            strokeOpacity={0.45}
            dot={{ r: 4, fill: color("ink") }}
            connectNulls
            isAnimationActive={false}
          >
            <ErrorBar dataKey="doubt" stroke={color("ink")} width={0} strokeWidth={2} />
          </Line>
          <Scatter data={done} dataKey="mark" shape={Mark} isAnimationActive={false} />
          <Tooltip content={(shown) => <Told row={rowOf(shown.payload)} history={history} zone={zone} />} />
        </ComposedChart>
      </ResponsiveContainer>
    </Box>
  );
}

function rowOf(payload: readonly unknown[] | undefined): Row | undefined {
  const first = payload?.[0];
  return typeof first === "object" && first !== null && "payload" in first
    ? (first.payload as Row)
    : undefined;
}

/** A short upright stroke at the foot of the chart. */
function Mark({ cx = 0, cy = 0 }: { cx?: number; cy?: number }) {
  return <rect x={cx - 1.5} y={cy - 12} width={3} height={12} fill={color("soft")} />;
}

function Told({ row, history, zone }: { row: Row | undefined; history: History; zone: string }) {
  if (row === undefined) return null;
  const at = new Date(row.at).toISOString();
  const unit = unitOf(history.measure);
  return (
    <Box bg="card" border="1px solid" borderColor="control" borderRadius="10px" p="3" fontSize="note">
      <Box fontWeight="650">
        {dayName(at, zone)} {clock(at, zone)}
      </Box>
      {row.value !== undefined && `${valueText(history.measure, row.value)} ${unit}`}
      {row.band !== undefined &&
        `about ${valueText(history.measure, row.likely ?? 0)} (${valueText(history.measure, row.band[0])} to ${valueText(history.measure, row.band[1])}) ${unit}`}
      {row.text}
    </Box>
  );
}

function extent(history: History): number[] {
  const { low, high, points, ahead } = history;
  const values = [
    ...points.flatMap((point) => [point.low, point.high]),
    ...ahead.map((point) => point.likely),
    ...(low === null ? [] : [low]),
    ...(high === null ? [] : [high]),
  ];
  return roundExtent(Math.min(...values), Math.max(...values), history.measure === "ph" ? 0.5 : 0);
}
