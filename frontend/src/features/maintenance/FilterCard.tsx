import { Box, chakra, Heading, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import type { EquipmentView } from "../../api/types";
import { Card } from "../../components/Card";
import { pressureText } from "../../lib/plant";
import { dayName } from "../../lib/times";
import type { Units } from "../../lib/units";

type Filter = EquipmentView["filter"];

const Svg = chakra("svg", { base: { display: "block", w: "100%", maxW: "34rem", h: "auto" } });
const Words = chakra("text", { base: { fill: "soft", fontSize: "14px" } });
const Rule = chakra("line", { base: { stroke: "hairline", strokeWidth: "1.5" } });
const Limit = chakra("line", { base: { stroke: "accent", strokeWidth: "2", strokeDasharray: "6 4" } });
const Course = chakra("path", { base: { fill: "none", stroke: "rope", strokeWidth: "2.5" } });
const Dot = chakra("circle", { base: { fill: "ink" } });
const W = 480;
const H = 150;
const LEFT = 64;

interface FilterCardProps {
  filter: Filter;
  zone: string;
  units: Units;
  /** What may be wrong with it. */
  children?: ReactNode;
}

/** The gauge since the last cleaning, and the day on which it reaches the limit. */
export function FilterCard({ filter, zone, units, children }: FilterCardProps) {
  const { trend } = filter;
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Filter
      </Heading>
      {trend === null ? (
        <Text>Note the gauge now and then, pump on: the rise and the next cleaning follow from it.</Text>
      ) : (
        <>
          <Text>
            {pressureText(trend.last_kpa, units)} on {dayName(trend.last_at, zone)},{" "}
            {pressureText(trend.rise_kpa, units)} over clean.{" "}
            {trend.limit_at !== null && `At the limit about ${dayName(trend.limit_at, zone)}.`}
          </Text>
          <Gauge filter={filter} zone={zone} units={units} />
        </>
      )}
      <Text mt="2" color="soft" fontSize="note">
        Clean {pressureText(filter.clean_kpa, units)}
        {!filter.clean_known && ", a guess: note it after the next cleaning"}; the limit is{" "}
        {pressureText(filter.limit_kpa, units)} over it. The other rule, a quarter over clean, would be{" "}
        {pressureText(filter.clean_kpa * 0.25, units)}.
      </Text>
      {filter.doubt !== "" && (
        <Text mt="2" fontWeight="600">
          {filter.doubt}
        </Text>
      )}
      <Text mt="2">
        Second witness: are the returns as strong as after the last cleaning? A gauge may lie, the flow does
        not.
      </Text>
      {filter.media_age_days !== null && (
        <Text mt="2" fontWeight={filter.media_due ? "600" : "400"}>
          The filter medium is {(filter.media_age_days / 365).toFixed(1)} years old
          {filter.media_due && ": time to replace it"}.
        </Text>
      )}
      {children}
    </Card>
  );
}

function Gauge({ filter, zone, units }: { filter: Filter; zone: string; units: Units }) {
  const { trend, clean_kpa, limit_kpa } = filter;
  if (trend === null || trend.points.length < 2) return null;
  const times = trend.points.map((point) => new Date(point.at).getTime());
  const first = Math.min(...times);
  const last = Math.max(...times, first + 86_400_000);
  const top = Math.max(clean_kpa + limit_kpa, ...trend.points.map((point) => point.pressure_kpa)) * 1.05;
  const bottom = Math.min(clean_kpa, ...trend.points.map((point) => point.pressure_kpa)) * 0.9;
  const x = (at: number) => LEFT + ((at - first) / (last - first)) * (W - LEFT - 12);
  const y = (kpa: number) => 10 + ((top - kpa) / (top - bottom)) * (H - 40);
  const line = trend.points
    .map(
      (point, i) =>
        `${i === 0 ? "M" : "L"}${x(times[i] ?? first).toFixed(1)} ${y(point.pressure_kpa).toFixed(1)}`,
    )
    .join(" ");
  const rows: [number, boolean][] = [
    [clean_kpa, false],
    [clean_kpa + limit_kpa, true],
  ];
  return (
    <Box mt="2">
      <Svg
        viewBox={`0 0 ${W} ${H}`}
        role="img"
        aria-label={`Filter pressure: ${trend.points.length} readings`}
      >
        {rows.map(([kpa, isLimit]) => (
          <g key={kpa}>
            {isLimit ? (
              <Limit x1={LEFT} x2={W} y1={y(kpa)} y2={y(kpa)} />
            ) : (
              <Rule x1={LEFT} x2={W} y1={y(kpa)} y2={y(kpa)} />
            )}
            <Words x={0} y={y(kpa) + 5}>
              {pressureText(kpa, units)}
            </Words>
          </g>
        ))}
        <Course d={line} />
        {trend.points.map((point, i) => (
          <Dot key={point.at} cx={x(times[i] ?? first)} cy={y(point.pressure_kpa)} r={4} />
        ))}
        <Words x={LEFT} y={H - 4}>
          {dayName(trend.points[0]?.at ?? trend.last_at, zone)}
        </Words>
        <Words x={W} y={H - 4} textAnchor="end">
          {dayName(trend.last_at, zone)}
        </Words>
      </Svg>
    </Box>
  );
}
