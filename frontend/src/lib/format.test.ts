import { describe, expect, it } from "vitest";
import { expectedText, rangeText, sideEffectText, valueText } from "./measures";
import { clock, whenText } from "./times";
import { lengthText, temperatureText, volumeText } from "./units";

describe("values as they are shown", () => {
  it("shows only the digits a measure is known to", () => {
    expect(valueText("free_chlorine", 2.52)).toBe("2.5");
    expect(valueText("ph", 7.5)).toBe("7.5");
    expect(valueText("ph", 7.46)).toBe("7.46");
    expect(valueText("salt", 2650.4)).toBe("2650");
    expect(valueText("saturation_index", -0.051)).toBe("\u22120.05");
  });

  it("says ranges in words", () => {
    expect(rangeText("free_chlorine", 2, 3)).toBe("2 to 3");
    expect(rangeText("combined_chlorine", null, 0.5)).toBe("0.5 at most");
    expect(rangeText("salt", null, null)).toBe("");
  });

  it("lists what a step leaves and what else it moves, without what rounds to nothing", () => {
    expect(expectedText({ free_chlorine: 2.5, salt: 3000 }, ["free_chlorine"])).toBe(
      "free chlorine about 2.5",
    );
    expect(sideEffectText({ salt: 12, total_alkalinity: 0.2 })).toBe("salt +12");
  });
});

describe("units for display", () => {
  it("switches everything at once", () => {
    expect(volumeText(75708.2, "us")).toBe("20\u2009000 gal");
    expect(volumeText(75708.2, "metric")).toBe("75\u2009700 L");
    expect(temperatureText(27.8, "us")).toBe("82 °F");
    expect(lengthText(9.7536, "us")).toBe("32 ft");
  });
});

describe("times on the pool's own clock", () => {
  it("keeps to the pool's zone, whatever the device's is", () => {
    expect(clock("2026-06-02T00:40:00Z", "America/Chicago")).toBe("19:40");
    expect(whenText("2026-06-02T00:40:00Z", "America/Chicago", new Date("2026-06-02T03:00:00Z"))).toBe(
      "19:40 today",
    );
    expect(whenText("2026-06-01T00:40:00Z", "America/Chicago", new Date("2026-06-02T03:00:00Z"))).toBe(
      "19:40 yesterday",
    );
  });
});
