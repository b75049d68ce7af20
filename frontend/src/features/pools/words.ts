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

type Built = Pick<PoolForm, "surface" | "chlorination" | "filter" | "indoor" | "covered">;

/** How a pool is built and fitted, as a line. */
export function builtAs({ surface, chlorination, filter, indoor, covered }: Built): string {
  return [
    worded(SURFACES, surface),
    worded(SANITIZERS, chlorination),
    `${worded(FILTERS, filter)} filter`,
    ...(indoor ? ["indoors"] : []),
    ...(covered ? ["covered between swims"] : []),
  ].join(", ");
}

/** What a pool is taken to be until somebody says otherwise, as a line. */
export function takenAs(form: Built & Pick<PoolForm, "isPublic">): string {
  return [
    builtAs(form),
    ...(form.indoor ? [] : ["outdoors"]),
    ...(form.covered ? [] : ["open between swims"]),
    form.isPublic ? "the public swims here" : "a household swims here",
  ].join(", ");
}
