import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { utcTicks } from "d3-time";
import { useState } from "react";
import type { MeasureHistory, SeasonMark } from "../../api/types";
import { SideButton } from "../../components/Button";
import { amountText, figureText, nameOf } from "../../lib/measures";
import { useStore } from "../../lib/store";
import { dayOfMonth } from "../../lib/times";
import { type Units, unitsStore } from "../../lib/units";
import { useWidth } from "../../lib/useWidth";
import { apart, everyHowMany, extent, inside, label, reach, titled, told } from "./chartWords";
import { type Span, type TimeWindow, useTimeWindow } from "./timeWindow";

const LEFT = 52;
const RIGHT = 10;
const HEAD = 24;
const ALONE_H = 260;
const ROW_H = 84;
const NAME_H = 38; // the number at the foot of the row above, then its name
const MARKS_H = 30;
const MONTH_PX = 90;

const RIBBON: readonly [SeasonMark["row"], string][] = [
  ["added", "Added"],
  ["shocks", "Shocks"],
  ["new_water", "New water"],
  ["care", "Care"],
];

const Svg = chakra("svg", { base: { display: "block", w: "100%", touchAction: "pan-y", cursor: "grab" } });
const Words = chakra("text", { base: { fill: "soft", fontSize: "14px" } });
const Name = chakra("text", { base: { fill: "ink", fontSize: "14px", fontWeight: "650" } });
const Rule = chakra("line", { base: { stroke: "hairline" } });
const Edge = chakra("line", { base: { stroke: "rope", strokeWidth: "1.5" } });
const Now = chakra("line", { base: { stroke: "accent", strokeWidth: "2" } });
const Cursor = chakra("line", { base: { stroke: "ink", strokeDasharray: "2 3" } });
const Band = chakra("rect", { base: { fill: "band" } });
const Dot = chakra("circle", { base: { fill: "ink" } });
const Doubt = chakra("line", { base: { stroke: "ink", strokeWidth: "2" } });
const Path = chakra("path", { base: { fill: "none", stroke: "ink", strokeOpacity: "0.4" } });
const Likely = chakra("path", {
  base: { fill: "none", stroke: "rope", strokeWidth: "2.5", strokeDasharray: "6 4" },
});
const Ahead = chakra("path", { base: { fill: "rope", fillOpacity: "0.3" } });
const Stroke = chakra("rect", { base: { fill: "ink" } });

interface TimeChartProps {
  histories: readonly MeasureHistory[];
  marks: readonly SeasonMark[];
  zone: string;
  now: number;
  first: Span;
}

/** Tests, forecast and all that was done, on one time axis; loaded only when it is looked at. */
export function TimeChart({ histories, marks, zone, now, first }: TimeChartProps) {
  const all = reach(histories, marks, now);
  const time = useTimeWindow(all, first);
  const units = useStore(unitsStore);
  const [box, width] = useWidth();
  const [at, setAt] = useState<number | null>(null);
  const alone = histories.length === 1;
  const row = alone ? ALONE_H : ROW_H;
  const foot = HEAD + histories.length * (row + NAME_H);
  const height = foot + RIBBON.length * MARKS_H + 6;
  const x = linear(time.span.from, time.span.to, LEFT, width - RIGHT);
  const ticks = utcTicks(
    new Date(time.span.from),
    new Date(time.span.to),
    Math.max(2, Math.floor(width / MONTH_PX)),
  );
  const named = everyHowMany(ticks.map((tick) => x(tick.getTime())));
  const shown = marks.filter((mark) => inside(mark.at, time.span));
  return (
    <Box ref={box}>
      <Box
        role="group"
        aria-label="Chart: left and right move it, plus and minus zoom"
        tabIndex={0}
        onKeyDown={time.keys}
      >
        <Svg
          viewBox={`0 0 ${width} ${height}`}
          height={height}
          role="img"
          aria-label={label(histories, units)}
          {...time.pointers}
          onPointerMove={(event) => {
            time.pointers.onPointerMove(event);
            const drawn = event.currentTarget.getBoundingClientRect();
            const share = (event.clientX - drawn.left) / (drawn.width || width);
            setAt(linear(LEFT, width - RIGHT, time.span.from, time.span.to)(share * width));
          }}
          onPointerLeave={() => setAt(null)}
        >
          <defs>
            <clipPath id="time-chart">
              <rect x={LEFT} y={0} width={Math.max(0, width - LEFT - RIGHT)} height={height} />
            </clipPath>
          </defs>
          {ticks.map((tick, index) => (
            <g key={tick.getTime()}>
              <Rule x1={x(tick.getTime())} x2={x(tick.getTime())} y1={HEAD} y2={height} />
              {index % named === 0 && (
                <Words x={x(tick.getTime())} y={15} textAnchor="middle">
                  {dayOfMonth(tick.getTime(), zone)}
                </Words>
              )}
            </g>
          ))}
          {histories.map((history, index) => (
            <Row
              key={history.measure}
              history={history}
              x={x}
              top={HEAD + index * (row + NAME_H) + NAME_H}
              height={row}
              width={width}
              span={time.span}
              units={units}
            />
          ))}
          {RIBBON.map(([key, name], index) => (
            <g key={key}>
              <Rule x1={0} x2={width} y1={foot + index * MARKS_H} y2={foot + index * MARKS_H} />
              <g clipPath="url(#time-chart)">
                {shown
                  .filter((mark) => mark.row === key)
                  .map((mark) => (
                    <Stroke
                      key={`${mark.at}${mark.text}`}
                      x={x(new Date(mark.at).getTime()) - 1.5}
                      y={foot + (index + 1) * MARKS_H - 4 - 22 * mark.weight}
                      width={3}
                      height={22 * mark.weight}
                    />
                  ))}
              </g>
              <Name
                x={0}
                y={foot + index * MARKS_H + 19}
                css={{ paintOrder: "stroke", stroke: "card", strokeWidth: "8px" }}
              >
                {name}
              </Name>
            </g>
          ))}
          {now > time.span.from && now < time.span.to && (
            <Now x1={x(now)} x2={x(now)} y1={HEAD - 4} y2={height} />
          )}
          {at !== null && <Cursor x1={x(at)} x2={x(at)} y1={HEAD} y2={height} />}
        </Svg>
      </Box>
      <Controls time={time} all={all} />
      <Text minH="3em" mt="1" role="status">
        {at === null
          ? "Point at a moment to read it. Drag or use the arrow keys to move, pinch or + and − to zoom."
          : told(at, histories, shown, zone, units)}
      </Text>
    </Box>
  );
}

function Controls({ time, all }: { time: TimeWindow; all: Span }) {
  const whole = time.span.from <= all.from && time.span.to >= all.to;
  return (
    <Flex gap="2" wrap="wrap" mt="2" data-noprint>
      <SideButton onClick={() => time.move(-0.5)} disabled={time.span.from <= all.from}>
        Earlier
      </SideButton>
      <SideButton onClick={() => time.move(0.5)} disabled={time.span.to >= all.to}>
        Later
      </SideButton>
      <SideButton onClick={() => time.zoom(0.5)} aria-label="Zoom in">
        +
      </SideButton>
      <SideButton onClick={() => time.zoom(2)} disabled={whole} aria-label="Zoom out">
        −
      </SideButton>
    </Flex>
  );
}

interface RowProps {
  history: MeasureHistory;
  x: (ms: number) => number;
  top: number;
  height: number;
  width: number;
  span: Span;
  units: Units;
}

function Row({ history, x, top, height, width, span, units }: RowProps) {
  const { measure, low, high } = history;
  const points = history.points.filter(({ at }) => inside(at, span));
  const ahead = history.ahead.filter(({ at }) => inside(at, span));
  const ticks = extent(history, span);
  const [bottom = 0, most = 1] = [ticks[0], ticks.at(-1)];
  const free = linear(bottom, most, top + height, top);
  const y = (value: number) => free(Math.min(Math.max(value, bottom), most));
  const moment = ({ at }: { at: string }) => x(new Date(at).getTime());
  const last = history.points.at(-1);
  const labels = height > ROW_H ? ticks : [low, high].filter((edge) => edge !== null);
  return (
    <g>
      <Name x={0} y={top - 14}>
        {titled(nameOf(measure))}
        {last && (
          <chakra.tspan fill="soft" fontWeight="400">
            {` · last ${amountText(measure, last.value, units)}`}
          </chakra.tspan>
        )}
      </Name>
      <g clipPath="url(#time-chart)">
        {low !== null && high !== null && (
          <Band x={LEFT} width={Math.max(0, width - LEFT - RIGHT)} y={y(high)} height={y(low) - y(high)} />
        )}
        {[low, high].map(
          (edge) =>
            edge !== null && <Edge key={edge} x1={LEFT} x2={width - RIGHT} y1={y(edge)} y2={y(edge)} />,
        )}
        <Ahead d={pathOf([...ahead.map((p) => [moment(p), y(p.low)] as const), ...back(ahead, moment, y)])} />
        <Likely d={pathOf(ahead.map((point) => [moment(point), y(point.likely)]))} />
        <Path d={pathOf(points.map((point) => [moment(point), y(point.value)]))} />
        {points.map((point) => (
          <g key={point.at}>
            <Doubt x1={moment(point)} x2={moment(point)} y1={y(point.low)} y2={y(point.high)} />
            <Dot cx={moment(point)} cy={y(point.value)} r={height > ROW_H ? 4 : 3} />
          </g>
        ))}
      </g>
      {apart(labels.map(y)).map((at, index) => (
        <Words key={labels[index]} x={LEFT - 6} y={at + 5} textAnchor="end">
          {figureText(measure, labels[index] ?? 0, units)}
        </Words>
      ))}
    </g>
  );
}

type Point = readonly [x: number, y: number];

function pathOf(points: readonly Point[]): string {
  return points.map(([x, y], index) => `${index === 0 ? "M" : "L"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");
}

/** The upper edge of the forecast, backwards: with the lower one it closes a shape. */
function back(
  ahead: MeasureHistory["ahead"],
  moment: (point: { at: string }) => number,
  y: (value: number) => number,
): Point[] {
  return [...ahead].reverse().map((point) => [moment(point), y(point.high)]);
}

function linear(from: number, to: number, first: number, last: number): (value: number) => number {
  return (value) => first + ((value - from) / (to - from)) * (last - first);
}
