import type { PoolHeaderData } from "../../api/types";
import { trimmed, type Units } from "../../lib/units";
import { emptyForm, emptyPart, type PartForm, type PoolForm } from "./form";

type StoredPart = PoolHeaderData["basin"]["parts"][number];

/** A stored part in the form's units, with the exact lengths behind what is shown. */
function partOf(part: StoredPart, length: (metres: number | null | undefined) => string): PartForm {
  const given: PartForm["given"] = {};
  const shown = (field: string, metres: number | null | undefined) => {
    const text = length(metres);
    if (metres !== null && metres !== undefined) given[field] = { shown: text, exact: `${metres} m` };
    return text;
  };
  const [first, last] = [part.depth[0], part.depth.at(-1)];
  // Only a slope from wall to wall is even; a profile of two points may begin or end short of a wall.
  const even = part.depth.length === 2 && first?.distance_m === 0 && last?.distance_m === part.length_m;
  return {
    ...emptyPart(),
    shape: part.shape,
    name: part.name ?? "",
    length: shown("length", part.length_m),
    width: shown("width", part.width_m),
    secondWidth: shown("secondWidth", part.second_width_m),
    slope: even ? "even" : "profile",
    shallow: shown("shallow", first?.depth_m),
    deep: shown("deep", last?.depth_m),
    profile: part.depth.map((point, index) => ({
      distance: shown(`distance${index}`, point.distance_m),
      depth: shown(`depth${index}`, point.depth_m),
    })),
    given,
  };
}

/** The form as it would have been typed for a pool that is there already. */
export function formOf(head: PoolHeaderData, units: Units): PoolForm {
  const length = (metres: number | null | undefined) =>
    metres === null || metres === undefined ? "" : trimmed(units === "us" ? metres / 0.3048 : metres, 2);
  const { settings, basin, equipment } = head;
  const text = (value: number | null | undefined) =>
    value === null || value === undefined ? "" : String(value);
  const parts = basin.parts.map((part) => partOf(part, length));
  const shownVolume = trimmed(units === "us" ? basin.volume_l / 3.785411784 : basin.volume_l, 0);
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
    spaApart: equipment.traits.spa_apart,
    how: basin.volume_is_unknown ? "unknown" : basin.volume_is_typed ? "typed" : "dimensions",
    volume: basin.volume_is_typed ? shownVolume : "",
    givenVolume: { shown: shownVolume, exact: `${basin.volume_l} l` },
    givenUncertainty: basin.volume_uncertainty,
    parts: parts.length > 0 ? parts : [emptyPart()],
    fixtures: basin.fixtures.map(({ kind, along }) => ({ kind, along })),
    fillPh: text(equipment.fill_water?.ph),
    fillAlkalinity: text(equipment.fill_water?.total_alkalinity),
    fillCalcium: text(equipment.fill_water?.calcium_hardness),
  };
}
