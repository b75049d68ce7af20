import { chakra } from "@chakra-ui/react";
import type { Identified } from "../../api/types";

type Kind = Identified["candidates"][number]["kind"];

const Svg = chakra("svg", {
  base: {
    display: "block",
    w: "88px",
    h: "66px",
    flexShrink: 0,
    border: "1.5px solid",
    borderColor: "hairline",
    borderRadius: "8px",
    bg: "card",
    "& *": { stroke: "ink", strokeWidth: "2", fill: "none", strokeLinecap: "round" },
    "& .full": { fill: "ink" },
    "& .water": { stroke: "rope" },
  },
});

/** A corner of the pool in a few lines: wall, floor, and what one would see there. */
const LINES: Record<Kind, React.ReactNode> = {
  green: (
    <>
      <path className="water" d="M8 20 q6 -5 12 0 t12 0 t12 0 t12 0 t12 0 t12 0" />
      <path d="M16 32 q5 -4 10 0 M34 38 q5 -4 10 0 M54 31 q5 -4 10 0 M22 47 q5 -4 10 0 M46 50 q5 -4 10 0 M66 44 q5 -4 10 0" />
    </>
  ),
  mustard: (
    <>
      <path d="M14 8 V54 H80" />
      <path d="M18 40 l1 0 M22 44 l1 0 M20 49 l1 0 M27 48 l1 0 M25 41 l1 0 M32 50 l1 0 M18 34 l1 0 M30 45 l1 0 M37 50 l1 0 M22 37 l1 0" />
      <path d="M52 14 l16 16 M60 14 l8 8" />
    </>
  ),
  black: (
    <>
      <path d="M14 8 V54 H80" />
      <circle className="full" cx="27" cy="22" r="4" />
      <circle className="full" cx="40" cy="34" r="5" />
      <circle className="full" cx="25" cy="42" r="3" />
      <path d="M27 26 v5 M40 39 v6 M25 45 v4" />
    </>
  ),
  pollen: (
    <>
      <path className="water" d="M8 24 q6 -5 12 0 t12 0 t12 0 t12 0 t12 0 t12 0" />
      <circle cx="58" cy="18" r="2" />
      <circle cx="66" cy="15" r="2" />
      <circle cx="72" cy="19" r="2" />
      <circle cx="64" cy="21" r="2" />
      <circle cx="76" cy="14" r="2" />
    </>
  ),
  sand: (
    <>
      <path d="M10 54 H80" />
      <path d="M24 54 q16 -16 34 0" />
      <path d="M32 50 l1 0 M38 47 l1 0 M44 50 l1 0 M50 51 l1 0 M36 52 l1 0 M47 47 l1 0" />
    </>
  ),
  metal: (
    <>
      <path d="M30 12 h28 l-4 42 h-20 z" />
      <path className="water" d="M32 26 h24 M33 36 h22 M34 46 h20" />
    </>
  ),
  dead: (
    <>
      <path className="water" d="M8 20 q6 -5 12 0 t12 0 t12 0 t12 0 t12 0 t12 0" />
      <path
        d="M24 44 a7 7 0 0 1 3 -13 a10 10 0 0 1 19 -1 a8 8 0 0 1 14 7 a6 6 0 0 1 -2 9 z"
        strokeDasharray="1 5"
      />
    </>
  ),
};

export function KindDrawing({ kind }: { kind: Kind }) {
  return (
    <Svg viewBox="0 0 88 66" aria-hidden="true">
      {LINES[kind]}
    </Svg>
  );
}
