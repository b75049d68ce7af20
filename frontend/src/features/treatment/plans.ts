import type { PlanKind, PlanRequest } from "../../api/types";
import type { Option } from "../../components/Pick";
import type { Units } from "../../lib/units";

/** The plans that can be asked for, and what each asks besides. Words only: the rules are the server's. */
export const PLANS: readonly Option<PlanKind>[] = [
  { value: "balance", label: "By the last test" },
  { value: "shock", label: "Shock" },
  { value: "lower_chlorine", label: "Too much chlorine" },
  { value: "rescue", label: "Rescue, what is due now" },
  { value: "drain", label: "Replace water" },
  { value: "drain_day", label: "Draining day" },
  { value: "incident", label: "Accident in the water" },
  { value: "borate", label: "Borate" },
  { value: "mineral", label: "Mineral program" },
  { value: "label_dose", label: "A dose by its label" },
];

export const STRATEGIES = [
  { value: "fixed", label: "To 10" },
  { value: "ratio", label: "40 % of stabilizer" },
  { value: "oxidiser", label: "Without chlorine" },
] as const;
export const REASONS = [
  { value: "routine", label: "Routine" },
  { value: "combined", label: "Combined chlorine, smell" },
  { value: "storm", label: "After a storm" },
  { value: "party", label: "After a party" },
] as const;
export const INCIDENTS = [
  { value: "formed_stool", label: "Formed stool" },
  { value: "diarrhoea", label: "Diarrhea" },
  { value: "vomit", label: "Vomit" },
  { value: "blood", label: "Blood" },
] as const;
export const HURRY = [
  { value: "sun", label: "Let the sun work" },
  { value: "today", label: "It must be today" },
] as const;
export const WHICH_DOSE = [
  { value: "first", label: "First dose" },
  { value: "upkeep", label: "Upkeep" },
] as const;
export const BORATE = [
  { value: "boric_acid", label: "Boric acid" },
  { value: "borax", label: "Borax and acid" },
] as const;
export const LOWERED = [
  { value: "most", label: "What is furthest over" },
  { value: "cyanuric_acid", label: "Stabilizer" },
  { value: "calcium_hardness", label: "Calcium" },
  { value: "salt", label: "Salt" },
] as const;

export function calendarFile(poolId: string, asked: PlanRequest, units: Units): string {
  const query = new URLSearchParams({ metric: String(units === "metric") });
  for (const [name, value] of Object.entries(asked)) {
    if (value !== null && value !== undefined) query.set(name, String(value));
  }
  return `/api/v1/pools/${poolId}/sheet.ics?${query}`;
}
