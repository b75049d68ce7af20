import { describe, expect, it } from "vitest";
import { daysAfter, dayText } from "./days";
import { clock, dayKey, dayName, hoursText, weekday, whenText } from "./times";

const ZONE = "America/Chicago";

describe("the pool's own clock", () => {
  it("is not the device's and minds daylight saving", () => {
    expect(clock("2026-06-01T23:30:00Z", ZONE)).toBe("6:30 PM");
    expect(clock("2026-12-01T23:30:00Z", ZONE)).toBe("5:30 PM");
  });
  it("puts a late hour on the pool's day", () => {
    expect(dayKey("2026-06-02T03:00:00Z", ZONE)).toBe("2026-06-01");
    expect(dayName("2026-06-02T03:00:00Z", ZONE)).toBe("Mon, Jun 1");
    expect(weekday("2026-06-02T03:00:00Z", ZONE)).toBe("Mon");
  });
  it("says today, yesterday, or the day", () => {
    const now = new Date("2026-06-02T20:00:00Z");
    expect(whenText("2026-06-02T15:00:00Z", ZONE, now)).toBe("10:00 AM today");
    expect(whenText("2026-06-01T15:00:00Z", ZONE, now)).toBe("10:00 AM yesterday");
    expect(whenText("2026-05-29T15:00:00Z", ZONE, now)).toBe("10:00 AM on Fri, May 29");
  });
});

describe("calendar days", () => {
  it("have no hour and no zone, and pass the end of a month and a leap day", () => {
    expect(daysAfter("2026-01-31", 1)).toBe("2026-02-01");
    expect(daysAfter("2028-02-28", 1)).toBe("2028-02-29");
    expect(daysAfter("2026-03-01", -1)).toBe("2026-02-28");
  });
  it("name the weekday this year, and the year else", () => {
    const year = new Date().getFullYear();
    expect(dayText(`${year}-06-08`)).toMatch(/^\w{3}, Jun 8$/);
    expect(dayText(`${year + 2}-06-08`)).toBe(`Jun 8, ${year + 2}`);
  });
});

describe("spans of minutes", () => {
  it("read as a person says them", () => {
    expect(hoursText(45)).toBe("45 min");
    expect(hoursText(120)).toBe("2 h");
    expect(hoursText(95)).toBe("1 h 35 min");
    expect(hoursText(3 * 1440)).toBe("3 days");
  });
});
