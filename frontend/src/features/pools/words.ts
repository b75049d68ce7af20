import type { PoolForm } from "./form";

export const SURFACES = [
  { value: "plaster", label: "Plaster" },
  { value: "tile", label: "Tile" },
  { value: "painted", label: "Painted" },
  { value: "vinyl", label: "Vinyl" },
  { value: "fibreglass", label: "Fiberglass" },
] as const;
export const SANITIZERS = [
  { value: "liquid", label: "Liquid chlorine" },
  { value: "granules", label: "Granules" },
  { value: "tablets", label: "Tablets" },
  { value: "salt_cell", label: "Salt cell" },
  { value: "mineral", label: "Mineral and chlorine" },
  { value: "bromine", label: "Bromine" },
  { value: "biguanide", label: "Biguanide" },
  { value: "spa", label: "It is a spa" },
] as const;
export const FILTERS = [
  { value: "sand", label: "Sand" },
  { value: "cartridge", label: "Cartridge" },
  { value: "de", label: "DE" },
] as const;

const worded = (options: readonly { value: string; label: string }[], value: string) =>
  (options.find((option) => option.value === value)?.label ?? value).replace(/^[A-Z](?=[a-z])/, (letter) =>
    letter.toLowerCase(),
  );

/** What a pool is taken to be until somebody says otherwise, as a line. */
export function takenAs(
  form: Pick<PoolForm, "surface" | "chlorination" | "filter" | "indoor" | "covered" | "isPublic">,
): string {
  return [
    worded(SURFACES, form.surface),
    worded(SANITIZERS, form.chlorination),
    `${worded(FILTERS, form.filter)} filter`,
    form.indoor ? "indoors" : "outdoors",
    form.covered ? "under a cover between swims" : "open between swims",
    form.isPublic ? "the public swims here" : "a household swims here",
  ].join(", ");
}
