import { chakra } from "@chakra-ui/react";
import type { TrainingGame } from "../../api/types";

type Clarity = TrainingGame["clarity"];

const Svg = chakra("svg", {
  base: {
    display: "block",
    w: "100%",
    maxW: "300px",
    h: "auto",
    "& *": { stroke: "ink", strokeWidth: "2", fill: "none", strokeLinecap: "round" },
    "& .water": { stroke: "rope" },
    "& .cloud": { stroke: "soft" },
  },
});

const CLOUD: Record<Clarity, number> = { clear: 0, hazy: 4, cloudy: 10, drain_hidden: 18, green: 22 };
const WORDS: Record<Clarity, string> = {
  clear: "Clear: the main drain is plain to see.",
  hazy: "Hazy: the main drain is soft at its edge.",
  cloudy: "Cloudy: the main drain is a pale spot.",
  drain_hidden: "The main drain cannot be seen.",
  green: "Green: the main drain cannot be seen.",
};

/** The pool cut open: the drain as well as one can see it, the cloud as strokes. */
export function WaterDrawing({ clarity }: { clarity: Clarity }) {
  const strokes = CLOUD[clarity];
  const hidden = clarity === "drain_hidden" || clarity === "green";
  return (
    <Svg viewBox="0 0 300 120" role="img" aria-label={WORDS[clarity]}>
      <path d="M8 12 V66 L110 76 L170 108 H262 Q292 108 292 84 V12" />
      <path
        className="water"
        d="M10 26 q12 -8 24 0 t24 0 t24 0 t24 0 t24 0 t24 0 t24 0 t24 0 t24 0 t24 0 t24 0 t18 0"
      />
      {!hidden && (
        <path d="M206 103 h28" strokeWidth="6" strokeDasharray={clarity === "clear" ? undefined : "4 6"} />
      )}
      {Array.from({ length: strokes }, (_, n) => {
        const x = 24 + ((n * 67) % 240);
        const y = 38 + ((n * 29) % (x > 120 ? 56 : 24));
        return <path key={n} className="cloud" d={`M${x} ${y} q6 -5 12 0 t12 0`} />;
      })}
    </Svg>
  );
}

export function clarityText(clarity: Clarity): string {
  return WORDS[clarity];
}
