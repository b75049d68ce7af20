import { afterEach, expect, it, vi } from "vitest";
import { daysAfter, dayText } from "./days";

afterEach(() => {
  vi.useRealTimers();
});

it("names another year only where the day alone could be taken for another", () => {
  vi.useFakeTimers({ now: new Date("2026-12-20T12:00:00Z") });
  expect(dayText("2026-03-06")).toBe("Fri, Mar 6");
  expect(dayText("2027-01-01")).toBe("Fri, Jan 1");
  expect(dayText("2027-11-23")).toBe("Nov 23, 2027");
});

it("goes on over the end of a month", () => {
  expect(daysAfter("2026-02-27", 2)).toBe("2026-03-01");
});
