import { type PointerEvent, useRef } from "react";

const FAR_PX = 60;
const STRAIGHT = 2;

interface Swipe {
  onPointerDown: (event: PointerEvent) => void;
  onPointerUp: (event: PointerEvent) => void;
  onPointerCancel: () => void;
}

/** A finger drawn sideways: `onward` to the left, `back` to the right. Scrolling and short strokes are none. */
export function useSwipe(onward: () => void, back: () => void): Swipe {
  const from = useRef<{ x: number; y: number } | null>(null);
  return {
    onPointerDown: ({ clientX, clientY }) => {
      from.current = { x: clientX, y: clientY };
    },
    onPointerUp: ({ clientX, clientY }) => {
      if (from.current === null) return;
      const { x, y } = from.current;
      from.current = null;
      const across = clientX - x;
      if (Math.abs(across) < FAR_PX || Math.abs(across) < STRAIGHT * Math.abs(clientY - y)) return;
      if (across < 0) onward();
      else back();
    },
    onPointerCancel: () => {
      from.current = null;
    },
  };
}
