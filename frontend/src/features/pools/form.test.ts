import { describe, expect, it, vi } from "vitest";
import type { PoolHeaderData } from "../../api/types";

vi.stubGlobal("window", { location: { origin: "http://kumpan" } }); // the client asks for the page's own origin
const { emptyForm, emptyPart, equipmentOf, settingsOf, typedBasin, typedPart } = await import("./form");
const { formOf } = await import("./storedForm");

const rectangle = { ...emptyPart(), length: "32", width: "16", shallow: "3", deep: "8" };

describe("a part of the basin", () => {
  it("waits for every dimension that its shape needs", () => {
    expect(typedPart(emptyPart())).toBeNull();
    expect(typedPart({ ...rectangle, width: " " })).toBeNull();
    expect(typedPart(rectangle)).not.toBeNull();
    expect(typedPart({ ...rectangle, shape: "kidney" })).toBeNull();
    expect(typedPart({ ...rectangle, shape: "kidney", secondWidth: "12" })).not.toBeNull();
  });

  it("asks a round pool for no width, and sends none that was left over", () => {
    const round = typedPart({ ...rectangle, shape: "round", width: "16", secondWidth: "9" });
    expect(round).toMatchObject({ shape: "round", length: "32", width: "", second_width: "" });
  });

  it("takes one depth for both ends where the floor is level", () => {
    expect(typedPart({ ...rectangle, deep: "" })?.depths).toEqual([
      { distance: "0", depth: "3" },
      { distance: "32", depth: "3" },
    ]);
  });

  it("leaves out lines of a profile that nobody filled", () => {
    const part = {
      ...rectangle,
      slope: "profile" as const,
      profile: [
        { distance: "0", depth: "3" },
        { distance: "20", depth: "5" },
        { distance: " ", depth: "" },
      ],
    };
    expect(typedPart(part)?.depths).toHaveLength(2);
    expect(typedPart({ ...part, profile: [{ distance: "", depth: "" }] })).toBeNull();
    expect(typedPart({ ...part, profile: [{ distance: "10", depth: "" }] })).toBeNull();
  });
});

describe("the basin", () => {
  it("goes by its parts, or by a volume that is known", () => {
    const form = { ...emptyForm(), parts: [rectangle] };
    expect(typedBasin(form, "us")).toMatchObject({ unit: "ft", volume: "" });
    expect(typedBasin({ ...form, parts: [rectangle, emptyPart()] }, "us")).toBeNull();
    const known = { ...emptyForm(), how: "typed" as const, volume: "18,400" };
    expect(typedBasin(known, "us")).toMatchObject({ parts: [], volume: "18,400", volume_unit: "gal" });
    expect(typedBasin(known, "metric")).toMatchObject({ unit: "m", volume_unit: "l" });
    expect(typedBasin({ ...known, volume: "  " }, "us")).toBeNull();
  });
});

describe("settings and equipment", () => {
  it("leave out what nobody typed", () => {
    const settings = settingsOf(emptyForm());
    expect(settings).toMatchObject({
      swim_limit_mg_l: "",
      latitude_deg: "",
      own_ranges: [],
      choices: [],
    });
    expect(equipmentOf(emptyForm()).fill_water).toEqual({
      ph: "",
      total_alkalinity: "",
      calcium_hardness: "",
    });
  });

  it("travel as they were typed: the server reads them", () => {
    expect(settingsOf({ ...emptyForm(), swimLimit: "3,5" }).swim_limit_mg_l).toBe("3,5");
    expect(settingsOf({ ...emptyForm(), latitude: "north" }).latitude_deg).toBe("north");
  });

  it("keep one side of a range of one's own", () => {
    const form = { ...emptyForm(), ownRanges: { ph: { low: "", aim: "7.5", high: "7.7" } } };
    expect(settingsOf(form).own_ranges).toEqual([{ measure: "ph", low: "", aim: "7.5", high: "7.7" }]);
    const cleared = { ...emptyForm(), ownRanges: { ph: { low: " ", aim: "", high: "" } } };
    expect(settingsOf(cleared).own_ranges).toEqual([]);
  });

  it("send a choice once it is made", () => {
    const form = { ...emptyForm(), choices: { shock: "fixed", salt: undefined } };
    expect(settingsOf(form).choices).toEqual([{ question: "shock", option: "fixed" }]);
  });
});

const head = {
  settings: {
    name: "Millrace",
    place: "Alderbank",
    time_zone: "America/Chicago",
    school: "household",
    public: false,
    kit: "drops",
    kit_order: ["free_chlorine", "ph"],
    care_preset: "",
    season_months: [5, 6, 7],
    swim_limit_mg_l: 3,
    latitude_deg: 29.5,
    longitude_deg: null,
    choices: [{ question: "salt", option: "shallow" }],
    own_ranges: [{ measure: "ph", low: 7.4, aim: null, high: 7.6 }],
  },
  basin: {
    volume_is_typed: false,
    volume_l: 69_651.6,
    parts: [
      {
        shape: "rectangle",
        length_m: 9.7536,
        width_m: 4.8768,
        second_width_m: null,
        depth: [
          { distance_m: 0, depth_m: 0.9144 },
          { distance_m: 9.7536, depth_m: 2.4384 },
        ],
      },
    ],
    fixtures: [{ kind: "skimmer", along: 0.9 }],
  },
  equipment: {
    traits: { surface: "vinyl", chlorination: "tablets", filter: "sand", indoor: false, covered: true },
    fill_water: { ph: 7.6, total_alkalinity: 90, calcium_hardness: null },
  },
} as unknown as PoolHeaderData;

describe("a pool that is there already", () => {
  it("comes back as it would have been typed, in either units", () => {
    const us = formOf(head, "us");
    expect(us.parts[0]).toMatchObject({ length: "32", width: "16", shallow: "3", deep: "8", slope: "even" });
    expect(formOf(head, "metric").parts[0]).toMatchObject({ length: "9.75", width: "4.88" });
    expect(us).toMatchObject({
      how: "dimensions",
      volume: "",
      surface: "vinyl",
      covered: true,
      fillPh: "7.6",
    });
  });

  it("is sent again as it was", () => {
    const form = formOf(head, "us");
    expect(settingsOf(form)).toMatchObject({
      kit_order: ["free_chlorine", "ph"],
      season_months: [5, 6, 7],
      swim_limit_mg_l: "3",
      latitude_deg: "29.5",
      longitude_deg: "",
      choices: [{ question: "salt", option: "shallow" }],
      own_ranges: [{ measure: "ph", low: "7.4", aim: "", high: "7.6" }],
    });
    expect(equipmentOf(form)).toMatchObject({ chlorination: "tablets", filter: "sand" });
    expect(typedBasin(form, "us")?.parts).toHaveLength(1);
  });

  it("known by its volume alone keeps that, in round figures", () => {
    const plain = {
      ...head,
      basin: { ...head.basin, volume_is_typed: true, parts: [] },
    } as PoolHeaderData;
    expect(formOf(plain, "us")).toMatchObject({ how: "typed", volume: "18400" });
    expect(formOf(plain, "metric")).toMatchObject({ how: "typed", volume: "69652" });
  });

  it("keeps every length exactly while nobody types over it", () => {
    for (const units of ["us", "metric"] as const)
      for (const length_m of [9.7536, 5.5, 10 / 3, 12.3456789])
        for (const depth of [
          [
            { distance_m: 0, depth_m: 1.1 },
            { distance_m: length_m / 2, depth_m: 1.87 },
          ],
          [
            { distance_m: 0, depth_m: 1.1 },
            { distance_m: length_m, depth_m: 2.13 },
          ],
          [
            { distance_m: 0, depth_m: 1 },
            { distance_m: 2.2, depth_m: 1.23 },
            { distance_m: length_m, depth_m: 2 },
          ],
        ]) {
          const part = { shape: "kidney", length_m, width_m: 4.4, second_width_m: 3.123, depth, name: "Spa" };
          const stored = { ...head, basin: { ...head.basin, parts: [part] } } as unknown as PoolHeaderData;
          expect(typedBasin(formOf(stored, units), units)?.parts[0]).toEqual({
            shape: "kidney",
            length: `${length_m} m`,
            width: "4.4 m",
            second_width: "3.123 m",
            depths: depth.map(({ distance_m, depth_m }) => ({
              distance:
                distance_m === 0 && depth.length === 2 && depth[1]?.distance_m === length_m
                  ? "0"
                  : `${distance_m} m`,
              depth: `${depth_m} m`,
            })),
            name: "Spa",
          });
        }
  });

  it("keeps a volume that was told by itself, also beside drawn parts", () => {
    const told = {
      ...head,
      basin: { ...head.basin, volume_is_typed: true, volume_l: 70_123.4 },
    } as PoolHeaderData;
    const form = formOf(told, "us");
    expect(form).toMatchObject({ how: "typed", volume: "18525" });
    expect(typedBasin(form, "us")).toMatchObject({ volume: "70123.4 l" });
    expect(typedBasin({ ...form, volume: "18600" }, "us")).toMatchObject({ volume: "18600" });
  });
});
