import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";

/** A stretch of time, in milliseconds since 1970. */
export interface Span {
  from: number;
  to: number;
}

const NARROWEST_MS = 2 * 86_400_000;
const STEP = 0.25;

/** A window of `length` that holds as much of `span` as fits into `all`. */
function within(all: Span, from: number, length: number): Span {
  const wide = Math.min(Math.max(length, NARROWEST_MS), all.to - all.from);
  const start = Math.min(Math.max(from, all.from), all.to - wide);
  return { from: start, to: start + wide };
}

/** The window made wider or narrower around a moment in it, which stays where it is. */
export function zoomed(all: Span, span: Span, factor: number, around: number): Span {
  const length = Math.min(Math.max((span.to - span.from) * factor, NARROWEST_MS), all.to - all.from);
  const share = (around - span.from) / (span.to - span.from);
  return within(all, around - share * length, length);
}

/** The window moved by a share of itself, no further than there is something. */
export function moved(all: Span, span: Span, share: number): Span {
  const length = span.to - span.from;
  return within(all, span.from + share * length, length);
}

/** What a key shows; null for a key that means nothing here. */
export function byKey(key: string, all: Span, span: Span): Span | null {
  const length = span.to - span.from;
  const middle = (span.from + span.to) / 2;
  switch (key) {
    case "ArrowLeft":
      return moved(all, span, -STEP);
    case "ArrowRight":
      return moved(all, span, STEP);
    case "+":
    case "=":
      return zoomed(all, span, 0.5, middle);
    case "-":
      return zoomed(all, span, 2, middle);
    case "Home":
      return within(all, all.from, length);
    case "End":
      return within(all, all.to, length);
    default:
      return null;
  }
}

export interface TimeWindow {
  span: Span;
  show: (span: Span) => void;
  zoom: (factor: number) => void;
  move: (share: number) => void;
  keys: (event: KeyboardEvent) => void;
  /** Two fingers pinch, one finger or the mouse drags. */
  pointers: {
    onPointerDown: (event: PointerEvent<SVGSVGElement>) => void;
    onPointerMove: (event: PointerEvent<SVGSVGElement>) => void;
    onPointerUp: (event: PointerEvent<SVGSVGElement>) => void;
    onPointerCancel: (event: PointerEvent<SVGSVGElement>) => void;
  };
}

/** What of the time is shown: by keys, by fingers, by buttons. */
export function useTimeWindow(all: Span, first: Span): TimeWindow {
  const [span, setSpan] = useState(() => within(all, first.from, first.to - first.from));
  const down = useRef(new Map<number, number>());
  const middle = (span.from + span.to) / 2;
  const zoom = (factor: number) => setSpan(zoomed(all, span, factor, middle));
  const move = (share: number) => setSpan(moved(all, span, share));
  const keys = (event: KeyboardEvent) => {
    const next = event.ctrlKey || event.metaKey || event.altKey ? null : byKey(event.key, all, span);
    if (next === null) return;
    event.preventDefault();
    event.stopPropagation();
    setSpan(next);
  };
  const lift = (event: PointerEvent<SVGSVGElement>) => {
    down.current.delete(event.pointerId);
  };
  return {
    span,
    show: (wanted) => setSpan(within(all, wanted.from, wanted.to - wanted.from)),
    zoom,
    move,
    keys,
    pointers: {
      onPointerDown: (event) => {
        down.current.set(event.pointerId, event.clientX);
      },
      onPointerMove: (event) => {
        if (event.buttons === 0) lift(event); // let go outside of the chart, where nobody heard it
        const before = down.current.get(event.pointerId);
        if (before === undefined) return;
        const { left, width } = event.currentTarget.getBoundingClientRect();
        const length = span.to - span.from;
        const others = [...down.current.entries()].filter(([id]) => id !== event.pointerId);
        const other = others[0]?.[1];
        if (other === undefined) {
          setSpan(within(all, span.from - ((event.clientX - before) / (width || 1)) * length, length));
        } else {
          const apart = Math.abs(event.clientX - other);
          const was = Math.abs(before - other);
          if (apart > 8 && was > 8) {
            const at = span.from + (((event.clientX + other) / 2 - left) / (width || 1)) * length;
            setSpan(zoomed(all, span, was / apart, at));
          }
        }
        down.current.set(event.pointerId, event.clientX);
      },
      onPointerUp: lift,
      onPointerCancel: lift,
    },
  };
}
