import { describe, expect, it } from "vitest";
import { amountText, expectedText, nameOf, rangeText, sideEffectText, unitOf, valueText } from "./measures";
import { grouped, lengthText, temperatureText, volumeText } from "./units";

describe("a value as it is shown", () => {
  it("has only the digits that the measure is known to", () => {
    expect(valueText("free_chlorine", 2.44)).toBe("2.4");
    expect(valueText("free_chlorine", 2)).toBe("2");
    expect(valueText("total_alkalinity", 91.6)).toBe("92");
    expect(valueText("copper", 0.123)).toBe("0.12");
  });

  it("keeps one figure of pH, two where the second tells something", () => {
    expect(valueText("ph", 7.5)).toBe("7.5");
    expect(valueText("ph", 7)).toBe("7.0");
    expect(valueText("ph", 7.46)).toBe("7.46");
    expect(valueText("ph", 7.499)).toBe("7.5");
  });

  it("tells which way the water leans", () => {
    expect(valueText("saturation_index", 0.3)).toBe("+0.30");
    expect(valueText("saturation_index", -0.42)).toBe("\u22120.42");
  });

  it("sets thousands apart as a US reader has them", () => {
    expect(valueText("salt", 3200)).toBe("3,200");
    expect(valueText("salt", 35_000)).toBe("35,000");
    expect(grouped(1_234_567)).toBe("1,234,567");
  });

  it("has its unit, or none", () => {
    expect(amountText("salt", 2900, "metric")).toBe("2,900 ppm");
    expect(amountText("ph", 7.9, "us")).toBe("7.9");
    expect(amountText("temperature_c", 23.5, "us")).toBe("74 °F");
    expect(amountText("temperature_c", 23.5, "metric")).toBe("24 °C");
    expect(unitOf("ph")).toBe("");
    expect(unitOf("saturation_index")).toBe("");
    expect(unitOf("phosphate_ppb")).toBe("ppb");
    expect(unitOf("salt")).toBe("ppm");
    expect(nameOf("cyanuric_acid")).toBe("stabilizer");
  });
});

describe("a range in words", () => {
  it("has two sides, one, or none", () => {
    expect(rangeText("ph", 7.2, 7.8)).toBe("7.2 to 7.8");
    expect(rangeText("combined_chlorine", null, 0.5)).toBe("0.5 at most");
    expect(rangeText("calcium_hardness", 200, null)).toBe("200 at least");
    expect(rangeText("sulfate", null, null)).toBe("");
  });
});

describe("what a step leaves", () => {
  it("names only the measures that are asked for", () => {
    const after = { free_chlorine: 4.02, ph: 7.5, salt: 1012 };
    expect(expectedText(after, ["free_chlorine", "ph"])).toBe("free chlorine about 4, pH about 7.5");
    expect(expectedText(after, ["borate"])).toBe("");
    expect(expectedText()).toBe("");
  });

  it("leaves out what rounds to nothing", () => {
    expect(sideEffectText({ salt: 12.4, total_alkalinity: -3, calcium_hardness: 0.2, ph: 0.02 })).toBe(
      "salt +12, alkalinity \u22123",
    );
    expect(sideEffectText({ ph: -0.25 })).toBe("pH \u22120.25");
    expect(sideEffectText()).toBe("");
  });
});

describe("units on the screen", () => {
  it("round a pool's water to what is known of it", () => {
    expect(volumeText(69_651.6, "us")).toBe("18,400 gal");
    expect(volumeText(69_651.6, "metric")).toBe("69,700 L");
    expect(volumeText(5_678, "us")).toBe("1,500 gal");
    expect(volumeText(378.5, "us")).toBe("100 gal");
  });

  it("follow the definitions", () => {
    expect(temperatureText(100, "us")).toBe("212 °F");
    expect(temperatureText(27.7, "metric")).toBe("28 °C");
    expect(lengthText(9.7536, "us")).toBe("32 ft");
    expect(lengthText(9.7536, "metric")).toBe("9.75 m");
  });
});
