import { chakra } from "@chakra-ui/react";
import type { Severity } from "../../api/types";

const Svg = chakra("svg", {
  base: {
    display: "block",
    w: "64px",
    h: "48px",
    flexShrink: 0,
    "& *": { stroke: "ink", strokeWidth: "2", fill: "none", strokeLinecap: "round" },
    "& .full": { fill: "ink" },
    "& .water": { stroke: "rope" },
  },
});

/** The pool cut open: shell, surface, and how much of the drain one sees. */
const LINES: Record<Severity, React.ReactNode> = {
  light: (
    <>
      <path d="M26 40 h12" strokeWidth="4" />
      <path d="M14 22 l3 0 M30 26 l3 0 M46 21 l3 0 M22 32 l3 0" />
    </>
  ),
  green: (
    <>
      <path d="M26 40 h12" strokeDasharray="3 4" />
      <path d="M11 19 l4 0 M22 22 l4 0 M34 19 l4 0 M46 22 l4 0 M14 28 l4 0 M27 28 l4 0 M40 29 l4 0 M20 34 l4 0 M34 34 l4 0" />
    </>
  ),
  opaque: (
    <path d="M10 18 H54 M10 21 H54 M10 24 H54 M11 27 H53 M12 30 H52 M13 33 H51 M14 36 H50 M16 39 H48" />
  ),
  mustard: (
    <>
      <path d="M26 40 h12" strokeWidth="4" />
      <path d="M11 22 l1 0 M12 27 l1 0 M14 31 l1 0 M11 31 l1 0 M15 36 l1 0 M18 39 l1 0 M15 26 l1 0 M50 25 l1 0 M49 31 l1 0 M51 35 l1 0" />
    </>
  ),
  black: (
    <>
      <path d="M26 40 h12" strokeWidth="4" />
      <circle className="full" cx="14" cy="24" r="2" />
      <circle className="full" cx="17" cy="33" r="3" />
      <circle className="full" cx="48" cy="28" r="2.5" />
    </>
  ),
};

export function SeverityDrawing({ severity }: { severity: Severity }) {
  return (
    <Svg viewBox="0 0 64 48" aria-hidden="true">
      <path d="M6 8 V36 Q6 44 14 44 H50 Q58 44 58 36 V8" />
      <path className="water" d="M8 14 q4 -3 8 0 t8 0 t8 0 t8 0 t8 0 t8 0" />
      {LINES[severity]}
    </Svg>
  );
}
