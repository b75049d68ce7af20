import { describe, expect, it } from "vitest";
import { roundExtent } from "./scale";

describe("ticks of a chart", () => {
  it("are round and hold both ends", () => {
    expect(roundExtent(1.6, 6.4)).toEqual([0, 2, 4, 6, 8]);
    expect(roundExtent(2550, 3480)).toEqual([2500, 2750, 3000, 3250, 3500]);
    expect(roundExtent(7.1, 7.9, 0.5)).toEqual([7, 7.5, 8]);
  });
  it("never go below zero and never have no height", () => {
    expect(roundExtent(-0.4, 0)[0]).toBe(0);
    expect(roundExtent(3, 3).length).toBeGreaterThan(1);
  });
});
