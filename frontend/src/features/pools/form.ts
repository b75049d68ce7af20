import type { BasinTyped, EquipmentIn, FixtureIn, Measure, PartTyped, SettingsIn } from "../../api/types";
import { asGiven, type Given } from "../../lib/given";
import type { Units } from "../../lib/units";

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
  name: string;
  /** By field, what a stored part showed when the form was opened. */
  given: Partial<Record<string, Given>>;
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
  /** Of a new pool: the kind it began as; none was picked on the one page. */
  kind: string;
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
  /** What is typed of them; a row that was never touched may be empty or not there. */
  ownRanges: Partial<Record<Measure, Partial<RangeText>>>;
  kit: string;
  isPublic: boolean;
  surface: EquipmentIn["surface"];
  chlorination: string;
  filter: EquipmentIn["filter"];
  indoor: boolean;
  covered: boolean;
  spaApart: boolean;
  how: "dimensions" | "typed" | "salt" | "unknown";
  volume: string;
  givenVolume: Given | undefined;
  /** How far the stored volume may be off, where the way it was found says so. */
  givenUncertainty: number | null;
  /** Salt before and after a weighed addition, and the volume that the server found from it. */
  saltBefore: string;
  saltAdded: string;
  saltAfter: string;
  fromSalt: { volume_l: number; uncertainty_share: number } | null;
  /** Chemicals on the shelf of who sets up a first pool. */
  onShelf: string[];
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
    name: "",
    given: {},
  };
}

export function emptyForm(): PoolForm {
  return {
    kind: "",
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
    spaApart: false,
    how: "dimensions",
    volume: "",
    givenVolume: undefined,
    givenUncertainty: null,
    saltBefore: "",
    saltAdded: "",
    saltAfter: "",
    fromSalt: null,
    onShelf: [],
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
  const exact = (field: string, text: string) => asGiven(text, part.given[field]);
  const depths =
    part.slope === "even"
      ? [
          { distance: "0", depth: exact("shallow", part.shallow) },
          {
            distance: exact("length", part.length),
            depth: part.deep === "" ? exact("shallow", part.shallow) : exact("deep", part.deep),
          },
        ]
      : part.profile
          .map(({ distance, depth }, index) => ({
            distance: exact(`distance${index}`, distance),
            depth: exact(`depth${index}`, depth),
          }))
          .filter(({ distance, depth }) => distance.trim() !== "" || depth.trim() !== "");
  const needed = [part.length, ...depths.map(({ depth }) => depth)];
  if (part.shape !== "round") needed.push(part.width);
  if (part.shape === "kidney") needed.push(part.secondWidth);
  if (depths.length === 0 || needed.some((text) => text.trim() === "")) return null;
  return {
    shape: part.shape,
    length: exact("length", part.length),
    width: part.shape === "round" ? "" : exact("width", part.width),
    second_width: part.shape === "kidney" ? exact("secondWidth", part.secondWidth) : "",
    depths,
    name: part.name,
  };
}

/** The basin as the server reads it; null while something it needs is still empty. */
export function typedBasin(form: PoolForm, units: Units): BasinTyped | null {
  const parts = form.parts.map(typedPart);
  const complete = parts.filter((part) => part !== null);
  const common = {
    unit: units === "us" ? ("ft" as const) : ("m" as const),
    fixtures: form.fixtures,
    volume_is_unknown: form.how === "unknown" || (form.how === "salt" && form.fromSalt === null),
  };
  if (common.volume_is_unknown)
    return { ...common, parts: [], volume: "", volume_unit: units === "us" ? "gal" : "l" };
  if (form.how === "salt" && form.fromSalt !== null) {
    const { volume_l, uncertainty_share } = form.fromSalt;
    return {
      ...common,
      parts: complete,
      volume: `${volume_l} l`,
      volume_unit: "l",
      volume_uncertainty: uncertainty_share,
    };
  }
  if (form.how === "typed") {
    if (form.volume.trim() === "") return null;
    const untouched = form.givenVolume?.shown === form.volume;
    return {
      ...common,
      parts: complete,
      volume: asGiven(form.volume, form.givenVolume),
      volume_unit: units === "us" ? "gal" : "l",
      ...(untouched && form.givenUncertainty !== null ? { volume_uncertainty: form.givenUncertainty } : {}),
    };
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
    swim_limit_mg_l: form.swimLimit,
    latitude_deg: form.latitude,
    longitude_deg: form.longitude,
    choices: Object.entries(form.choices).flatMap(([question, option]) =>
      option === undefined ? [] : [{ question, option }],
    ),
    own_ranges: OWN_MEASURES.flatMap((measure) => ownRange(measure, form.ownRanges[measure])),
  };
}

function ownRange(measure: Measure, row: Partial<RangeText> | undefined): SettingsIn["own_ranges"] {
  const { low = "", aim = "", high = "" } = row ?? {};
  if ([low, aim, high].every((text) => text.trim() === "")) return [];
  return [{ measure, low, aim, high }];
}

export function equipmentOf(form: PoolForm): EquipmentIn {
  return {
    surface: form.surface,
    chlorination: form.chlorination,
    filter: form.filter,
    indoor: form.indoor,
    covered: form.covered,
    spa_apart: form.spaApart,
    fill_water: {
      ph: form.fillPh,
      total_alkalinity: form.fillAlkalinity,
      calcium_hardness: form.fillCalcium,
    },
  };
}
