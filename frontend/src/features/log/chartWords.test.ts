import { expect, it } from "vitest";
import { apart, everyHowMany } from "./chartWords";

it("names no more days than there is room for", () => {
  expect(everyHowMany([0, 60, 120])).toBe(1);
  expect(everyHowMany([0, 48, 96])).toBe(2);
  expect(everyHowMany([0, 20, 40])).toBe(3);
  expect(everyHowMany([])).toBe(1);
});

it("moves two numbers apart that would stand on each other", () => {
  expect(apart([100, 40])).toEqual([100, 40]);
  expect(apart([100, 94])).toEqual([104.5, 89.5]);
  expect(apart([10, 12, 14])).toEqual([10, 12, 14]);
});
