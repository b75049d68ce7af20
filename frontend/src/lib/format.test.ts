import { describe, expect, it } from "vitest";
import { clock, whenText } from "./times";

describe("times on the pool's own clock", () => {
  it("keeps to the pool's zone, whatever the device's is", () => {
    expect(clock("2026-06-02T00:40:00Z", "America/Chicago")).toBe("7:40 PM");
    expect(whenText("2026-06-02T00:40:00Z", "America/Chicago", new Date("2026-06-02T03:00:00Z"))).toBe(
      "7:40 PM today",
    );
    expect(whenText("2026-06-01T00:40:00Z", "America/Chicago", new Date("2026-06-02T03:00:00Z"))).toBe(
      "7:40 PM yesterday",
    );
  });
});
