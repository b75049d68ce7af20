import { chakra } from "@chakra-ui/react";
import type { PlanDrawingData } from "../api/types";
import { lengthText, type Units } from "../lib/units";

type Point = readonly number[];

// No wider than its words are large enough: on a tablet they would be twice those of the page.
const Svg = chakra("svg", {
  base: { display: "block", w: "100%", maxW: "22rem", h: "auto", mx: "auto", overflow: "visible" },
});
const Shape = chakra("path", { base: { fill: "band", stroke: "ink" } });
const Path = chakra("path", { base: { fill: "none", stroke: "accent" } });
const Dot = chakra("circle", { base: { fill: "ink" } });
const Ring = chakra("circle", { base: { fill: "card", stroke: "rope" } });
const Cross = chakra("path", { base: { stroke: "ink", fill: "none" } });
const Words = chakra("text", { base: { fill: "ink", fontWeight: "600" } });

function pathOf(points: readonly Point[], closed: boolean): string {
  const line = points.map(([x, y], i) => `${i === 0 ? "M" : "L"}${x?.toFixed(3)} ${y?.toFixed(3)}`).join(" ");
  return closed ? `${line} Z` : line;
}

interface PlanDrawingProps {
  plan: PlanDrawingData;
  units: Units;
  /** Which of the two to mark: where to sample, where to pour. */
  show?: "sample" | "pour" | null;
}

/** The pool seen from above, to scale, drawn from its own data. */
export function PlanDrawing({ plan, units, show = null }: PlanDrawingProps) {
  const unit = Math.max(plan.width_m, plan.height_m * 1.6) / 100;
  const type = unit * 5.6;
  const margin = unit * 11;
  // "skimmer" beside the edge is wider than it is high above it.
  const sides = plan.fixtures.some(({ at }) => sideOf(at[0] ?? 0, plan) !== "middle") ? unit * 26 : margin;
  const shallow = plan.depth_marks[0];
  const deep = plan.depth_marks[plan.depth_marks.length - 1];
  const label =
    `Plan of the pool, ${lengthText(plan.width_m, units)} by ${lengthText(plan.height_m, units)}` +
    (show === "pour"
      ? ", the pouring path marked along the deep end"
      : show === "sample"
        ? ", the place to sample marked"
        : "");
  return (
    <Svg
      viewBox={`${-sides} ${-margin} ${plan.width_m + 2 * sides} ${plan.height_m + 2 * margin}`}
      role="img"
      aria-label={label}
      fontSize={`${type}px`}
    >
      {plan.outlines.map((outline) => (
        <Shape key={pathOf(outline, true)} d={pathOf(outline, true)} strokeWidth={unit * 0.7} />
      ))}
      {shallow && deep && shallow !== deep && (
        <Words
          x={shallow.at[0]}
          y={shallow.at[1]}
          textAnchor="middle"
          css={{ fill: "soft" }}
          fontWeight="400"
        >
          {lengthText(shallow.depth_m, units)}
        </Words>
      )}
      {deep && (
        <>
          {show !== "sample" && (
            <Words x={deep.at[0]} y={(deep.at[1] ?? 0) - type * 0.9} textAnchor="middle">
              {shallow === deep ? "depth" : "deep end"}
            </Words>
          )}
          <Words x={deep.at[0]} y={(deep.at[1] ?? 0) + type * 1.6} textAnchor="middle" fontWeight="400">
            {lengthText(deep.depth_m, units)}
          </Words>
        </>
      )}
      {plan.fixtures.map((fixture) => (
        <FixtureMark
          key={`${fixture.kind}${fixture.along}`}
          fixture={fixture}
          plan={plan}
          unit={unit}
          type={type}
        />
      ))}
      {show === "pour" && plan.pour_path.length > 1 && (
        <PourPath points={plan.pour_path} plan={plan} unit={unit} />
      )}
      {show === "sample" && (
        <>
          <Ring cx={plan.sample_at[0]} cy={plan.sample_at[1]} r={unit * 2.2} strokeWidth={unit} />
          <Words
            x={(plan.sample_at[0] ?? 0) - unit * 4}
            y={(plan.sample_at[1] ?? 0) + type * 0.35}
            textAnchor="end"
          >
            sample here
          </Words>
        </>
      )}
    </Svg>
  );
}

type FixtureData = PlanDrawingData["fixtures"][number];

function FixtureMark({
  fixture,
  plan,
  unit,
  type,
}: {
  fixture: FixtureData;
  plan: PlanDrawingData;
  unit: number;
  type: number;
}) {
  const [x = 0, y = 0] = fixture.at;
  const size = unit * 1.8;
  if (fixture.kind === "drain") {
    return (
      <Cross d={`M${x - size} ${y} h${2 * size} M${x} ${y - size} v${2 * size}`} strokeWidth={unit * 0.5} />
    );
  }
  const beside = besideEdge(x, y, plan, unit, type);
  return (
    <>
      {fixture.kind === "return" ? (
        <Dot cx={x} cy={y} r={size} />
      ) : (
        <Cross
          d={`M${x - size} ${y - size} l${2 * size} ${2 * size} M${x + size} ${y - size} l${-2 * size} ${2 * size}`}
          strokeWidth={unit * 0.9}
        />
      )}
      <Words x={beside.x} y={beside.y} textAnchor={beside.anchor} fontSize={`${type * 0.9}px`}>
        {fixture.kind}
      </Words>
    </>
  );
}

function sideOf(x: number, { width_m }: PlanDrawingData): "left" | "right" | "middle" {
  return x < width_m * 0.08 ? "left" : x > width_m * 0.92 ? "right" : "middle";
}

/** A label outside the edge, on the side where the fixture sits: inside are the depths and the way of the pour. */
function besideEdge(x: number, y: number, plan: PlanDrawingData, unit: number, type: number) {
  const side = sideOf(x, plan);
  if (side === "left") return { x: x - unit * 3, y: y + type * 0.3, anchor: "end" as const };
  if (side === "right") return { x: x + unit * 3, y: y + type * 0.3, anchor: "start" as const };
  const above = y < plan.height_m / 2;
  return { x, y: above ? y - unit * 3 : y + unit * 3 + type * 0.7, anchor: "middle" as const };
}

function PourPath({ points, plan, unit }: { points: readonly Point[]; plan: PlanDrawingData; unit: number }) {
  const middle: Point = [plan.width_m / 2, plan.height_m / 2];
  const inner = points.map(([x = 0, y = 0]) => {
    const dx = (middle[0] ?? 0) - x;
    const dy = (middle[1] ?? 0) - y;
    const length = Math.hypot(dx, dy) || 1;
    return [x + (dx / length) * unit * 4, y + (dy / length) * unit * 4];
  });
  return (
    <>
      <Path
        d={pathOf(inner, false)}
        strokeWidth={unit * 1.3}
        strokeLinecap="round"
        strokeDasharray={`0.01 ${unit * 3}`}
        markerEnd="url(#pour-end)"
      />
      <defs>
        <marker
          id="pour-end"
          viewBox="0 0 10 10"
          refX="6"
          refY="5"
          markerWidth="4"
          markerHeight="4"
          orient="auto"
        >
          <Path d="M1 1 L8 5 L1 9" strokeWidth="2" />
        </marker>
      </defs>
    </>
  );
}
