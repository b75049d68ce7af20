import type { MeasureHistory, SeasonMark } from "../../api/types";
import { amountText, figureText, nameOf } from "../../lib/measures";
import { roundExtent } from "../../lib/scale";
import { clock, dayName } from "../../lib/times";
import type { Units } from "../../lib/units";
import type { Span } from "./timeWindow";

/** Whether a moment is in a stretch of time, or a day beside it: lines run on to its edges. */
export function inside(at: string, { from, to }: Span): boolean {
  const ms = new Date(at).getTime();
  return ms >= from - 86_400_000 && ms <= to + 86_400_000;
}

/** All the time there is something of. */
export function reach(histories: readonly MeasureHistory[], marks: readonly SeasonMark[], now: number): Span {
  const times = [
    now,
    ...histories.flatMap(({ points, ahead }) =>
      [...points, ...ahead].map(({ at }) => new Date(at).getTime()),
    ),
    ...marks.filter(({ row }) => row !== "due").map(({ at }) => new Date(at).getTime()),
  ];
  const [least, most] = [Math.min(...times), Math.max(...times)];
  const air = Math.max((most - least) * 0.01, 86_400_000 / 2);
  return { from: least - air, to: most + air };
}

/** Round ticks that hold what a measure shows in a stretch of time. */
export function extent({ measure, low, high, points, ahead }: MeasureHistory, span: Span): number[] {
  const values = [
    ...points.filter(({ at }) => inside(at, span)).flatMap((point) => [point.low, point.high]),
    ...ahead.filter(({ at }) => inside(at, span)).map((point) => point.likely),
    ...[low, high].filter((edge) => edge !== null),
  ];
  if (values.length === 0) return [0, 1];
  return roundExtent(Math.min(...values), Math.max(...values), measure === "ph" ? 0.5 : 0);
}

/** The chart in words, for who does not see it. */
export function label(histories: readonly MeasureHistory[], units: Units): string {
  return histories
    .map(({ measure, points }) => {
      const last = points.at(-1);
      const value = last ? `, last ${amountText(measure, last.value, units)}` : "";
      return `${nameOf(measure)} over time: ${points.length} tests${value}`;
    })
    .join("; ");
}

const NEAR_SHARE_MS = 36 * 3_600_000;

/** What was tested and done next to a moment, or what is forecast for it. */
export function told(
  at: number,
  histories: readonly MeasureHistory[],
  marks: readonly SeasonMark[],
  zone: string,
  units: Units,
): string {
  const away = ({ at: when }: { at: string }) => Math.abs(new Date(when).getTime() - at);
  const nearest = <T extends { at: string }>(rows: readonly T[]) =>
    rows.reduce<T | null>((best, row) => (best === null || away(row) < away(best) ? row : best), null);
  const test = nearest(histories.flatMap(({ points }) => points));
  const day = new Date(at).toISOString();
  const near = test !== null && away(test) < NEAR_SHARE_MS ? test : null;
  const values = histories.flatMap(({ measure, points, ahead }) => {
    const tested = near && points.find((point) => point.at === near.at);
    if (tested) return [`${nameOf(measure)} ${amountText(measure, tested.value, units)}`];
    const next = ahead.length > 0 && at > new Date(ahead[0]?.at ?? 0).getTime() ? nearest(ahead) : null;
    if (next === null) return [];
    const [low, high] = [figureText(measure, next.low, units), figureText(measure, next.high, units)];
    return [`${nameOf(measure)} about ${figureText(measure, next.likely, units)} (${low} to ${high})`];
  });
  const done = marks.filter(
    (mark) => mark.row !== "tests" && mark.row !== "due" && away(mark) < NEAR_SHARE_MS,
  );
  const when = near ? `${dayName(near.at, zone)} ${clock(near.at, zone)}` : dayName(day, zone);
  return `${when}: ${[...values, ...new Set(done.map(({ text }) => text))].join(", ") || "nothing here"}`;
}

/** With a capital, where the name has none. */
export function titled(text: string): string {
  return text === "pH" ? text : text.charAt(0).toUpperCase() + text.slice(1);
}

const DAY_NAME_PX = 56;
const LINE_PX = 15;

/** Every how manieth of these places along the axis has room for a day's name. */
export function everyHowMany(places: readonly number[]): number {
  const [first = 0, second = first + DAY_NAME_PX] = places;
  return Math.max(1, Math.ceil(DAY_NAME_PX / Math.max(1, second - first)));
}

/** Two numbers that would stand on each other are moved apart, as far from their middle each; more are left. */
export function apart(heights: readonly number[]): readonly number[] {
  const [one, other] = heights;
  if (one === undefined || other === undefined || heights.length > 2) return heights;
  if (Math.abs(one - other) >= LINE_PX) return heights;
  const middle = (one + other) / 2;
  const half = (one < other ? -LINE_PX : LINE_PX) / 2;
  return [middle + half, middle - half];
}
