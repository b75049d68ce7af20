import shownDigits from "../api/shownDigits.json";
import type { Measure } from "../api/types";
import { grouped, temperatureText, trimmed, type Units } from "./units";

// Made from the core's own table by ./run generate.
const DIGITS: Partial<Record<Measure, number>> = shownDigits;

/** A value as it is shown: only as many digits as the measure is known to. */
export function valueText(measure: Measure, value: number): string {
  const digits = DIGITS[measure] ?? 0;
  if (digits === 0) return grouped(Math.round(value));
  if (measure === "ph")
    return Number(value.toFixed(2)) === Number(value.toFixed(1)) ? value.toFixed(1) : value.toFixed(2);
  if (measure === "saturation_index") return `${value < 0 ? "\u2212" : "+"}${Math.abs(value).toFixed(2)}`;
  return trimmed(value, digits);
}

// All others are in ppm; a temperature has its unit by the reader's choice, in `figureText`.
const OTHER_UNIT: Partial<Record<Measure, string>> = {
  ph: "",
  saturation_index: "",
  temperature_c: "",
  phosphate_ppb: "ppb",
};

export function unitOf(measure: Measure): string {
  return OTHER_UNIT[measure] ?? "ppm";
}

/** "2,900", "7.9", "74 °F": a value on a scale whose unit is told beside it, and a temperature with its own. */
export function figureText(measure: Measure, value: number, units: Units): string {
  return measure === "temperature_c" ? temperatureText(value, units) : valueText(measure, value);
}

/** "2,900 ppm", "7.9", "74 °F". */
export function amountText(measure: Measure, value: number, units: Units): string {
  return `${figureText(measure, value, units)} ${unitOf(measure)}`.trimEnd();
}

/** "2–3", "0.5 at most", "100 at least", or nothing when the measure is not managed. */
export function rangeText(measure: Measure, low: number | null, high: number | null): string {
  if (low !== null && high !== null) return `${valueText(measure, low)} to ${valueText(measure, high)}`;
  if (high !== null) return `${valueText(measure, high)} at most`;
  if (low !== null) return `${valueText(measure, low)} at least`;
  return "";
}

const SHORT: Record<Measure, string> = {
  free_chlorine: "free chlorine",
  total_chlorine: "total chlorine",
  combined_chlorine: "combined",
  ph: "pH",
  total_alkalinity: "alkalinity",
  calcium_hardness: "calcium",
  cyanuric_acid: "stabilizer",
  salt: "salt",
  borate: "borate",
  sulfate: "sulfate",
  phosphate_ppb: "phosphate",
  copper: "copper",
  iron: "iron",
  tds: "dissolved solids",
  temperature_c: "temperature",
  saturation_index: "scaling index",
};

export function nameOf(measure: Measure): string {
  return SHORT[measure];
}

type Values = { [key in Measure]?: number };

/** "free chlorine about 2.5, alkalinity about 71": what a step leaves, for the measures named. */
export function expectedText(values: Values = {}, measures: readonly Measure[] = []): string {
  return measures
    .flatMap((measure) => {
      const value = values[measure];
      return value === undefined ? [] : [`${SHORT[measure]} about ${valueText(measure, value)}`];
    })
    .join(", ");
}

/** "salt +12, alkalinity +1": what else a step moves; what rounds to nothing is left out. */
export function sideEffectText(values: Values = {}): string {
  return (Object.entries(values) as [Measure, number][])
    .filter(([measure, change]) => Math.abs(change) >= (measure === "ph" ? 0.03 : 0.5))
    .map(
      ([measure, change]) =>
        `${SHORT[measure]} ${change < 0 ? "\u2212" : "+"}${valueText(measure, Math.abs(change))}`,
    )
    .join(", ");
}
