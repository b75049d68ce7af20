import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../testing/render";
import { willAnswer } from "../testing/server";
import { PoolHeader, swimText, traitsText } from "./PoolHeader";

it("says what is next, whether they may swim, and leads to the stations", async () => {
  render(<PoolHeader poolId={SALT.id} />);
  expect(await screen.findByText(SALT.settings.name)).toBeTruthy();
  expect(screen.getByText(SALT.next.why)).toBeTruthy();
  expect(screen.getByTestId("swim").textContent?.toLowerCase()).toBe(SALT.swim.text.toLowerCase());
  expect(screen.getByText("Test").getAttribute("href")).toBe(`/pools/${SALT.id}/slip`);
  expect(document.title).toBe(`${SALT.settings.name} · Kumpan`);
});

it("shows a notice that keeps people out", async () => {
  willAnswer(`/pools/${SALT.id}`, {
    ...SALT,
    notices: [{ code: "n", text: "Nobody in.", measure: null, fields: {} }],
  });
  render(<PoolHeader poolId={SALT.id} />);
  expect(await screen.findByText("Nobody in.")).toBeTruthy();
});

it("says every reason once", async () => {
  const swim = {
    code: "no" as const,
    not_before: null,
    text: "No: cloudy.",
    reasons: ["No: cloudy.", "No: pH 9."],
  };
  willAnswer(`/pools/${SALT.id}`, { ...SALT, swim });
  render(<PoolHeader poolId={SALT.id} />);
  expect((await screen.findByTestId("swim")).textContent).toBe("No: cloudy.");
  expect(screen.getByTestId("swim-reasons").textContent).toBe(" No: pH 9.");
});

it("tells the pool in a line, and when one may swim again", () => {
  expect(traitsText(SALT, "22,000 gal")).toContain("22,000 gal · plaster · salt cell");
  const traits = { ...SALT.equipment.traits, surface: "fibreglass" as const };
  expect(traitsText({ ...SALT, equipment: { ...SALT.equipment, traits } }, "9 gal")).toContain(
    "· fiberglass ·",
  );
  const swim = {
    code: "not_before" as const,
    not_before: "2026-11-28T01:00:00Z",
    text: "chlorine is high",
    reasons: ["chlorine is high"],
  };
  expect(swimText({ ...SALT, swim })).toBe("not before 7:00 PM: chlorine is high");
});
