import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { memo, useEffect, useRef, useState } from "react";
import type { Season, SeasonMark } from "../../api/types";
import { SideButton } from "../../components/Button";
import { dayName } from "../../lib/times";
import { temperatureText, type Units } from "../../lib/units";
import { useWidth } from "../../lib/useWidth";

const NAMES_W = 88; // beside the year, so that a row keeps its name where the year is moved
const LEAST_W = 760; // a year in less is a blur
const WARMTH_TOP = 30;
const WARMTH_H = 110;
const ROWS_TOP = WARMTH_TOP + WARMTH_H + 22;
const ROW_H = 38;
const STROKE_H = 28;

const ROWS: readonly [SeasonMark["row"], string][] = [
  ["tests", "Tests"],
  ["added", "Added"],
  ["shocks", "Shocks"],
  ["new_water", "New water"],
  ["care", "Care"],
  ["due", "Due"],
];

const Svg = chakra("svg", { base: { display: "block", flexShrink: "0" } });
const Words = chakra("text", { base: { fill: "soft", fontSize: "14px" } });
const Name = chakra("text", { base: { fill: "ink", fontSize: "14px", fontWeight: "600" } });
const Rule = chakra("line", { base: { stroke: "hairline" } });
const Now = chakra("line", { base: { stroke: "accent", strokeWidth: "2.5" } });
const Warm = chakra("path", { base: { fill: "none", stroke: "rope", strokeWidth: "2.5" } });
const Stroke = chakra("rect", { base: { fill: "ink" } });
const Ahead = chakra("rect", { base: { fill: "card", stroke: "ink", strokeWidth: "1.5" } });
const Around = chakra("rect", { base: { fill: "none", stroke: "accent", strokeWidth: "2.5" } });
const Catch = chakra("rect", { base: { fill: "transparent" } });

interface RibbonProps {
  season: Season;
  zone: string;
  units: Units;
}

/**
 * Drawn to the scale of the year; one mark at a time is told in words below: the one under the pointer or the finger,
 * or the next one by its two buttons.
 */
export function Ribbon({ season, zone, units }: RibbonProps) {
  const [told, setTold] = useState<SeasonMark | null>(null);
  const from = new Date(season.from_at).getTime();
  const to = new Date(season.to_at).getTime();
  const [box, given] = useWidth();
  const width = Math.max(LEAST_W, given - NAMES_W);
  const x = (at: string | number) => 4 + ((new Date(at).getTime() - from) / (to - from)) * (width - 12);
  const passed = (new Date(season.now_at).getTime() - from) / (to - from);
  const strip = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // Where it is wider than the screen it opens at today.
    if (strip.current) strip.current.scrollLeft = passed * width - 0.8 * strip.current.clientWidth;
  }, [passed, width]);
  const step = (by: -1 | 1) => setTold(nextMark(season, told, by));
  const height = ROWS_TOP + ROWS.length * ROW_H + 8;
  const degrees = degreesOf(season.warmth);
  const [low = 0, , high = 1] = degrees;
  const y = (c: number) => WARMTH_TOP + WARMTH_H - ((c - low) / (high - low)) * WARMTH_H;
  return (
    <>
      <Flex ref={box}>
        <Svg width={NAMES_W} height={height} aria-hidden="true">
          {degrees.map((c) => (
            <Words key={c} x={0} y={y(c) + 5}>
              {temperatureText(c, units)}
            </Words>
          ))}
          {ROWS.map(([row, name], index) => (
            <g key={row}>
              <Rule x1={0} x2={NAMES_W} y1={ROWS_TOP + index * ROW_H} y2={ROWS_TOP + index * ROW_H} />
              <Name x={0} y={ROWS_TOP + index * ROW_H + 25}>
                {name}
              </Name>
            </g>
          ))}
        </Svg>
        <Box ref={strip} overflowX="auto" tabIndex={0} role="region" aria-label="Season ribbon">
          <Svg
            width={width}
            height={height}
            role="img"
            aria-label={`The year: ${season.marks.length} marks; the table below holds them`}
          >
            {months(from, to).map((month) => (
              <g key={month.at}>
                <Rule x1={x(month.at)} x2={x(month.at)} y1={WARMTH_TOP} y2={height - 8} />
                <Words x={x(month.at) + 4} y={18}>
                  {month.name}
                </Words>
              </g>
            ))}
            {degrees.map((c) => (
              <Rule key={c} x1={0} x2={width} y1={y(c)} y2={y(c)} />
            ))}
            {ROWS.map(([row], index) => (
              <Rule key={row} x1={0} x2={width} y1={ROWS_TOP + index * ROW_H} y2={ROWS_TOP + index * ROW_H} />
            ))}
            <Warmth warmth={season.warmth} x={x} y={y} />
            <Now x1={x(season.now_at)} x2={x(season.now_at)} y1={WARMTH_TOP - 6} y2={height - 8} />
            {season.marks.map((mark) => (
              <Mark
                key={`${mark.at}${mark.row}${mark.text}`}
                mark={mark}
                x={x(mark.at)}
                isTold={mark === told}
                onTell={setTold}
              />
            ))}
          </Svg>
        </Box>
      </Flex>
      <Flex mt="2" gap="2" align="center" data-noprint>
        <SideButton px="3" aria-label="The mark before" onClick={() => step(-1)}>
          ‹
        </SideButton>
        <SideButton px="3" aria-label="The mark after" onClick={() => step(1)}>
          ›
        </SideButton>
        <Text role="status">
          {told === null
            ? "Point at a mark, or go from one to the next, to read it."
            : `${dayName(told.at, zone)}, ${nameOf(told).toLowerCase()}: ${told.text}`}
        </Text>
      </Flex>
      <AsTable season={season} zone={zone} />
    </>
  );
}

/** The one before or after in time; from none, the last one that is past or the first ahead. */
function nextMark({ marks, now_at }: Season, told: SeasonMark | null, by: -1 | 1): SeasonMark | null {
  const ahead = marks.findIndex(({ at }) => new Date(at) > new Date(now_at));
  const first = ahead < 0 ? marks.length : ahead;
  const at = told === null ? first + (by < 0 ? -1 : 0) : marks.indexOf(told) + by;
  return marks[at] ?? told;
}

function nameOf({ row }: SeasonMark): string {
  return ROWS.find(([key]) => key === row)?.[1] ?? row;
}

interface MarkProps {
  mark: SeasonMark;
  x: number;
  isTold: boolean;
  onTell: (mark: SeasonMark) => void;
}

const Mark = memo(function Mark({ mark, x, isTold, onTell }: MarkProps) {
  const drawn = useRef<SVGGElement>(null);
  useEffect(() => {
    if (isTold) drawn.current?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [isTold]);
  const index = ROWS.findIndex(([row]) => row === mark.row);
  const foot = ROWS_TOP + (index + 1) * ROW_H - 4;
  const tall = STROKE_H * mark.weight;
  const Shape = mark.row === "due" ? Ahead : Stroke;
  const width = mark.row === "shocks" || mark.row === "due" ? 7 : 3;
  return (
    <g ref={drawn}>
      {isTold && <Around x={x - 6} y={foot - ROW_H + 6} width={12} height={ROW_H - 4} rx={3} />}
      <Shape x={x - width / 2} y={foot - tall} width={width} height={tall} rx={1.5} />
      <Catch
        x={x - 6}
        y={foot - ROW_H + 4}
        width={12}
        height={ROW_H}
        onPointerEnter={() => onTell(mark)}
        onPointerDown={() => onTell(mark)}
      />
    </g>
  );
});

/** The lowest, middle and highest line of the scale; none where nothing was measured. */
function degreesOf(warmth: Season["warmth"]): number[] {
  if (warmth.length === 0) return [];
  const values = warmth.map((point) => point.temperature_c);
  const low = Math.floor((Math.min(...values) - 1) / 5) * 5;
  const high = Math.ceil((Math.max(...values) + 1) / 5) * 5;
  return [low, (low + high) / 2, high];
}

interface WarmthProps {
  warmth: Season["warmth"];
  x: (at: string) => number;
  y: (temperature_c: number) => number;
}

function Warmth({ warmth, x, y }: WarmthProps) {
  if (warmth.length === 0) {
    return (
      <Words x={8} y={WARMTH_TOP + WARMTH_H / 2}>
        No water temperature was entered yet.
      </Words>
    );
  }
  const line = warmth
    .map((point, i) => `${i === 0 ? "M" : "L"}${x(point.at).toFixed(1)} ${y(point.temperature_c).toFixed(1)}`)
    .join(" ");
  return <Warm d={line} />;
}

function AsTable({ season, zone }: { season: Season; zone: string }) {
  return (
    <chakra.details mt="3">
      <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
        The same as a table
      </chakra.summary>
      <Box
        as="table"
        w="100%"
        fontSize="note"
        css={{ "& td, & th": { textAlign: "left", padding: "4px 12px 4px 0" } }}
      >
        <thead>
          <tr>
            <th>Day</th>
            <th>Row</th>
            <th>What</th>
          </tr>
        </thead>
        <tbody>
          {[...season.marks].reverse().map((mark) => (
            <tr key={`${mark.at}${mark.row}${mark.text}`}>
              <td>{dayName(mark.at, zone)}</td>
              <td>{nameOf(mark)}</td>
              <td>{mark.text}</td>
            </tr>
          ))}
        </tbody>
      </Box>
    </chakra.details>
  );
}

function months(from: number, to: number): { at: number; name: string }[] {
  const found: { at: number; name: string }[] = [];
  const first = new Date(from);
  const month = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 1));
  while (month.getTime() < to) {
    found.push({
      at: month.getTime(),
      name: new Intl.DateTimeFormat("en-US", { month: "short", timeZone: "UTC" }).format(month),
    });
    month.setUTCMonth(month.getUTCMonth() + 1);
  }
  return found;
}
