import { Box, chakra } from "@chakra-ui/react";
import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Gauge, Marker } from "../api/types";
import { unitOf, valueText } from "../lib/measures";
import { LEFT, percent, RIGHT } from "./gaugeScale";

export interface Aiming {
  /** Where the float would come to stand; null where nothing would move it. */
  planned: Marker | null;
  /** Whether this lane is being aimed at by hand. */
  active: boolean;
  onPlace: (place: number) => void;
  onStep: (direction: 1 | -1) => void;
  onSettle: () => void;
}

/**
 * A button stands at its end of the lane; it makes room for the float that comes there. On a lane too short for both
 * and a float between them (a phone's) each stands half beside the lane, so that lower stays left of higher.
 */
const button = (end: "left" | "right", away: string) => ({
  [end]: `min(clamp(0px, calc((66px - ${away}) * 1000), 52px), max(-22px, calc((100% - 200px) * 1000)))`,
});

const INSIDE = 0.15; // bands that a hand stays away from the edge

const Nudge = chakra("button", {
  base: {
    position: "absolute",
    top: "50%",
    w: "44px",
    h: "44px",
    mt: "-22px",
    borderRadius: "10px",
    border: "1.5px solid",
    borderColor: "control",
    bg: "card",
    color: "ink",
    fontSize: "lead",
    fontWeight: "700",
    cursor: "pointer",
    zIndex: 2,
  },
});

/** The hollow float as a handle: grabbed, nudged with the arrow keys, or by - and + beside it. */
export function AimHandle({ lane, aiming }: { lane: Gauge; aiming: Aiming }) {
  const track = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<number | null>(null);
  const [near, setNear] = useState(false);
  const at = aiming.planned ?? lane.planned ?? lane.reading;
  if (at === null) return null;
  const place = held ?? at.at.position;
  const value = aiming.planned?.value ?? lane.planned?.value ?? lane.reading?.value ?? 0;

  function placeOf(event: PointerEvent): number {
    const box = track.current?.getBoundingClientRect();
    if (!box) return place;
    const raw = LEFT + ((event.clientX - box.left) / box.width) * (RIGHT - LEFT);
    return Math.min(RIGHT - INSIDE, Math.max(LEFT + INSIDE, raw));
  }
  function move(event: PointerEvent) {
    if (held === null) return;
    const next = placeOf(event);
    setHeld(next);
    aiming.onPlace(next);
  }
  function release() {
    if (held === null) return;
    setHeld(null);
    aiming.onSettle();
  }
  function key(event: KeyboardEvent) {
    const step = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (step !== 1 && step !== -1) return;
    event.preventDefault();
    aiming.onStep(step);
  }
  const shown = near || aiming.active;
  return (
    <Box
      ref={track}
      position="absolute"
      inset="0"
      onPointerEnter={() => setNear(true)}
      onPointerLeave={() => setNear(false)}
      onFocus={() => setNear(true)}
      onBlur={() => setNear(false)}
    >
      <Box
        role="slider"
        tabIndex={0}
        aria-label={`Aim for ${lane.name}`}
        aria-valuenow={value}
        aria-valuemin={0}
        aria-valuetext={`${valueText(lane.measure, value)} ${unitOf(lane.measure)}`.trim()}
        position="absolute"
        top="50%"
        style={{ left: percent(place) }}
        w="44px"
        h="44px"
        m="-22px"
        cursor={held === null ? "grab" : "grabbing"}
        touchAction="none"
        zIndex={1}
        display="flex"
        alignItems="center"
        justifyContent="center"
        borderRadius="full"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          setHeld(place);
        }}
        onPointerMove={move}
        onPointerUp={release}
        onPointerCancel={release}
        onKeyDown={key}
      >
        {(shown || aiming.planned !== null || lane.planned !== null) && (
          <Box
            w="20px"
            h="20px"
            borderRadius="full"
            bg="card"
            border="3px solid"
            borderColor={aiming.active ? "accent" : "ink"}
            opacity={aiming.planned !== null || lane.planned !== null || aiming.active ? 1 : 0.55}
          />
        )}
      </Box>
      {shown && (
        <>
          <Nudge
            type="button"
            style={button("left", percent(place))}
            tabIndex={-1}
            aria-label={`Aim lower for ${lane.name}`}
            onClick={() => aiming.onStep(-1)}
          >
            −
          </Nudge>
          <Nudge
            type="button"
            style={button("right", `(100% - ${percent(place)})`)}
            tabIndex={-1}
            aria-label={`Aim higher for ${lane.name}`}
            onClick={() => aiming.onStep(1)}
          >
            +
          </Nudge>
        </>
      )}
    </Box>
  );
}
