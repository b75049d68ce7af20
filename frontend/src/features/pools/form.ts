import { Trouble } from "../../api/client";
import type {
  BasinTyped,
  EquipmentIn,
  FixtureIn,
  Measure,
  PartTyped,
  PoolHeaderData,
  SettingsIn,
} from "../../api/types";
import { trimmed, type Units } from "../../lib/units";

export interface DepthText {
  distance: string;
  depth: string;
}

export interface PartForm {
  shape: PartTyped["shape"];
  length: string;
  width: string;
  secondWidth: string;
  slope: "even" | "profile";
  shallow: string;
  deep: string;
  profile: DepthText[];
}

export interface RangeText {
  low: string;
  aim: string;
  high: string;
}

/** What a dose can move, in the board's order. */
export const OWN_MEASURES: readonly Measure[] = [
  "free_chlorine",
  "ph",
  "total_alkalinity",
  "calcium_hardness",
  "cyanuric_acid",
  "salt",
  "borate",
];

export interface PoolForm {
  name: string;
  place: string;
  timeZone: string;
  latitude: string;
  longitude: string;
  school: string;
  swimLimit: string;
  kitOrder: Measure[];
  carePreset: string;
  seasonMonths: number[];
  choices: Partial<Record<string, string>>;
  ownRanges: Partial<Record<Measure, RangeText>>;
  kit: string;
  isPublic: boolean;
  surface: EquipmentIn["surface"];
  chlorination: string;
  filter: EquipmentIn["filter"];
  indoor: boolean;
  covered: boolean;
  how: "dimensions" | "typed";
  volume: string;
  parts: PartForm[];
  fixtures: FixtureIn[];
  fillPh: string;
  fillAlkalinity: string;
  fillCalcium: string;
}

export function emptyPart(): PartForm {
  return {
    shape: "rectangle",
    length: "",
    width: "",
    secondWidth: "",
    slope: "even",
    shallow: "",
    deep: "",
    profile: [
      { distance: "0", depth: "" },
      { distance: "", depth: "" },
      { distance: "", depth: "" },
    ],
  };
}

export function emptyForm(): PoolForm {
  return {
    name: "",
    place: "",
    timeZone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    latitude: "",
    longitude: "",
    school: "household",
    swimLimit: "",
    kitOrder: [],
    carePreset: "",
    seasonMonths: [],
    choices: {},
    ownRanges: {},
    kit: "drops",
    isPublic: false,
    surface: "plaster",
    chlorination: "liquid",
    filter: "sand",
    indoor: false,
    covered: false,
    how: "dimensions",
    volume: "",
    parts: [emptyPart()],
    fixtures: [
      { kind: "skimmer", along: 0.9 },
      { kind: "return", along: 0.2 },
      { kind: "return", along: 0.6 },
      { kind: "drain", along: 0 },
    ],
    fillPh: "",
    fillAlkalinity: "",
    fillCalcium: "",
  };
}

/** The part as the server reads it; null while a dimension it needs is still empty. */
export function typedPart(part: PartForm): PartTyped | null {
  const depths =
    part.slope === "even"
      ? [
          { distance: "0", depth: part.shallow },
          { distance: part.length, depth: part.deep || part.shallow },
        ]
      : part.profile.filter(({ distance, depth }) => distance.trim() !== "" || depth.trim() !== "");
  const needed = [part.length, ...depths.map(({ depth }) => depth)];
  if (part.shape !== "round") needed.push(part.width);
  if (part.shape === "kidney") needed.push(part.secondWidth);
  if (depths.length === 0 || needed.some((text) => text.trim() === "")) return null;
  return {
    shape: part.shape,
    length: part.length,
    width: part.shape === "round" ? "" : part.width,
    second_width: part.shape === "kidney" ? part.secondWidth : "",
    depths,
    name: "",
  };
}

/** The basin as the server reads it; null while something it needs is still empty. */
export function typedBasin(form: PoolForm, units: Units): BasinTyped | null {
  const parts = form.parts.map(typedPart);
  const complete = parts.filter((part) => part !== null);
  const common = { unit: units === "us" ? ("ft" as const) : ("m" as const), fixtures: form.fixtures };
  if (form.how === "typed") {
    if (form.volume.trim() === "") return null;
    return { ...common, parts: complete, volume: form.volume, volume_unit: units === "us" ? "gal" : "l" };
  }
  if (complete.length < parts.length) return null;
  return { ...common, parts: complete, volume: "", volume_unit: "gal" };
}

export function settingsOf(form: PoolForm): SettingsIn {
  return {
    name: form.name,
    place: form.place,
    time_zone: form.timeZone,
    school: form.school,
    public: form.isPublic,
    kit: form.kit,
    kit_order: form.kitOrder,
    care_preset: form.carePreset,
    season_months: form.seasonMonths,
    swim_limit_mg_l: optionalNumber(form.swimLimit, "swim_limit_mg_l"),
    latitude_deg: optionalNumber(form.latitude, "latitude_deg"),
    longitude_deg: optionalNumber(form.longitude, "longitude_deg"),
    choices: Object.entries(form.choices).flatMap(([question, option]) =>
      option === undefined ? [] : [{ question, option }],
    ),
    own_ranges: OWN_MEASURES.flatMap((measure) => ownRange(measure, form.ownRanges[measure])),
  };
}

function ownRange(measure: Measure, row: RangeText | undefined): SettingsIn["own_ranges"] {
  if (row === undefined || [row.low, row.aim, row.high].every((text) => text.trim() === "")) return [];
  const side = (text: string) => optionalNumber(text, "own_ranges");
  return [{ measure, low: side(row.low), aim: side(row.aim), high: side(row.high) }];
}

/** A number that may be left out. Throws Trouble naming the field for what is not a number. */
function optionalNumber(text: string, field: string): number | null {
  if (text.trim() === "") return null;
  const value = Number(text.replace(",", "."));
  if (Number.isNaN(value))
    throw new Trouble(`"${text.trim()}" is not a number; write it like 7.8, or leave it out.`, field, 0);
  return value;
}

export function equipmentOf(form: PoolForm): EquipmentIn {
  return {
    surface: form.surface,
    chlorination: form.chlorination,
    filter: form.filter,
    indoor: form.indoor,
    covered: form.covered,
    fill_water: {
      ph: optionalNumber(form.fillPh, "fill_ph"),
      total_alkalinity: optionalNumber(form.fillAlkalinity, "fill_alkalinity"),
      calcium_hardness: optionalNumber(form.fillCalcium, "fill_calcium"),
    },
  };
}

/** The form as it would have been typed for a pool that is there already. */
export function formOf(head: PoolHeaderData, units: Units): PoolForm {
  const length = (metres: number | null | undefined) =>
    metres === null || metres === undefined ? "" : trimmed(units === "us" ? metres / 0.3048 : metres, 2);
  const { settings, basin, equipment } = head;
  const text = (value: number | null | undefined) =>
    value === null || value === undefined ? "" : String(value);
  const parts: PartForm[] = basin.parts.map((part) => ({
    ...emptyPart(),
    shape: part.shape,
    length: length(part.length_m),
    width: length(part.width_m),
    secondWidth: length(part.second_width_m),
    slope: part.depth.length === 2 ? "even" : "profile",
    shallow: length(part.depth[0]?.depth_m ?? null),
    deep: length(part.depth.at(-1)?.depth_m ?? null),
    profile: part.depth.map((point) => ({
      distance: length(point.distance_m),
      depth: length(point.depth_m),
    })),
  }));
  return {
    ...emptyForm(),
    name: settings.name,
    place: settings.place,
    timeZone: settings.time_zone,
    latitude: text(settings.latitude_deg),
    longitude: text(settings.longitude_deg),
    school: settings.school,
    swimLimit: text(settings.swim_limit_mg_l),
    kitOrder: [...(settings.kit_order ?? [])],
    carePreset: settings.care_preset ?? "",
    seasonMonths: [...(settings.season_months ?? [])],
    choices: Object.fromEntries((settings.choices ?? []).map(({ question, option }) => [question, option])),
    ownRanges: Object.fromEntries(
      (settings.own_ranges ?? []).map(({ measure, low, aim, high }) => [
        measure,
        { low: text(low), aim: text(aim), high: text(high) },
      ]),
    ),
    kit: settings.kit,
    isPublic: settings.public,
    surface: equipment.traits.surface,
    chlorination: equipment.traits.chlorination,
    filter: equipment.traits.filter,
    indoor: equipment.traits.indoor,
    covered: equipment.traits.covered,
    how: parts.length > 0 ? "dimensions" : "typed",
    volume:
      parts.length > 0 ? "" : trimmed(units === "us" ? basin.volume_l / 3.785411784 : basin.volume_l, 0),
    parts: parts.length > 0 ? parts : [emptyPart()],
    fixtures: basin.fixtures.map(({ kind, along }) => ({ kind, along })),
    fillPh: text(equipment.fill_water?.ph),
    fillAlkalinity: text(equipment.fill_water?.total_alkalinity),
    fillCalcium: text(equipment.fill_water?.calcium_hardness),
  };
}
