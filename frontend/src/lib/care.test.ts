import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { daysAfter, dayText } from "./days";
import { flowText, hoursText, liquidText, minuteClock, minuteText, pressureText } from "./plant";
import { activeRoundStore, endRound, startRound, stopsOf } from "./round";
import { hoursText as spanText, whenText } from "./times";

describe("calendar days", () => {
  beforeEach(() => vi.useFakeTimers({ now: new Date("2026-06-08T12:00:00Z") }));
  afterEach(() => vi.useRealTimers());

  it("names the weekday this year and the year otherwise", () => {
    expect(dayText("2026-06-08")).toBe("Mon, Jun 8");
    expect(dayText("2027-05-22")).toBe("May 22, 2027");
  });

  it("steps over months, years and the day the clocks change", () => {
    expect(daysAfter("2026-06-30", 1)).toBe("2026-07-01");
    expect(daysAfter("2026-12-31", 1)).toBe("2027-01-01");
    expect(daysAfter("2026-03-07", 2)).toBe("2026-03-09");
    expect(daysAfter("2028-02-28", 1)).toBe("2028-02-29");
  });
});

describe("pressure, flow and what is mixed", () => {
  it("shows either system", () => {
    expect(pressureText(124.1, "us")).toBe("18 psi");
    expect(pressureText(124.1, "metric")).toBe("1.24 bar");
    expect(flowText(227.1, "us")).toBe("60 gpm");
    expect(flowText(227.1, "metric")).toBe("227 L/min");
    expect(liquidText(315.5, "us")).toBe("10.7 fl oz");
    expect(liquidText(1577, "us")).toBe("53 fl oz");
    expect(liquidText(1577, "metric")).toBe("1575 mL");
  });

  it("writes minutes of the day and spans", () => {
    expect(minuteText(390)).toBe("06:30");
    expect([0, 390, 720, 1110].map(minuteClock)).toEqual(["12:00 AM", "6:30 AM", "12:00 PM", "6:30 PM"]);
    expect(minuteText(1440)).toBe("00:00");
    expect(hoursText(8.33)).toBe("8.3 h");
    expect(spanText(95)).toBe("1 h 35 min");
    expect(spanText(3 * 1440)).toBe("3 days");
  });
});

describe("the round on this device", () => {
  it("is kept as it was started, and ends", () => {
    startRound([
      { id: "a", name: "Weir Lane 4" },
      { id: "b", name: "Swan “27”" },
    ]);
    expect(stopsOf(activeRoundStore.get()).map(({ name }) => name)).toEqual(["Weir Lane 4", "Swan “27”"]);
    endRound();
    expect(stopsOf(activeRoundStore.get())).toEqual([]);
  });

  it("survives a torn note", () => {
    expect(stopsOf("{not json")).toEqual([]);
    expect(stopsOf('{"id": 1}')).toEqual([]);
  });
});

describe("when something was", () => {
  it("says today and yesterday on the pool’s own clock", () => {
    const now = new Date("2026-06-02T03:00:00Z"); // still the first of June in Chicago
    expect(whenText("2026-06-01T23:40:00Z", "America/Chicago", now)).toBe("6:40 PM today");
    expect(whenText("2026-06-01T02:00:00Z", "America/Chicago", now)).toBe("9:00 PM yesterday");
  });
});
