import { describe, expect, it, vi } from "vitest";

vi.stubGlobal("localStorage", { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
const { distanceText, grouped, lengthText, rainText, temperatureText, volumeText } = await import("./units");

// Definitions: a mile is 1.609344 km, an inch 25.4 mm, a foot 0.3048 m, a US gallon 3.785411784 L.
describe("what is shown in the reader's units", () => {
  it("is US customary for a US reader, metric for a metric one", () => {
    expect(distanceText(1.609344 * 4.2, "us")).toBe("4.2 mi");
    expect(distanceText(6.76, "metric")).toBe("6.8 km");
    expect(rainText(25.4 * 0.6, "us")).toBe("0.6 in");
    expect(rainText(15.6, "metric")).toBe("16 mm");
    expect(lengthText(9.7536, "us")).toBe("32 ft");
    expect(lengthText(9.7536, "metric")).toBe("9.75 m");
    expect(temperatureText(27.8, "us")).toBe("82 °F");
    expect(temperatureText(27.8, "metric")).toBe("28 °C");
  });

  it("has its thousands apart, and volumes rounded as one says them", () => {
    expect(grouped(22400)).toBe("22,400");
    const browsers = new Intl.NumberFormat("en-US", { maximumFractionDigits: 3 });
    for (const value of [0, 7, 999, 1000, 12_345.5, 0.125, 1_234_567.891, -1234, 0.1 + 0.2])
      expect(grouped(value)).toBe(browsers.format(value));
    expect(volumeText(84_790.15, "us")).toBe("22,400 gal");
    expect(volumeText(84_790.15, "metric")).toBe("84,800 L");
  });
});
