import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../testing/render";
import { willAnswer } from "../testing/server";
import { PoolHeader, swimText, traitsText } from "./PoolHeader";

const ground = (code: string, text: string, measures: "ph"[]) => ({
  code,
  text,
  measures,
  entries: [],
  law: "B.3",
});

it("says what is next, whether they may swim, in the largest words", async () => {
  render(<PoolHeader poolId={SALT.id} whole />);
  expect(await screen.findByText(SALT.settings.name)).toBeTruthy();
  expect(screen.getByText(SALT.next.why)).toBeTruthy();
  expect(screen.getByTestId("swim").textContent?.toLowerCase()).toBe(SALT.swim.text.toLowerCase());
  expect(screen.getByRole("heading", { level: 1 }).textContent).toBe(SALT.next.text);
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

const because = [ground("cloudy", "Cloudy.", []), ground("ph_high", "pH 9.", ["ph"])];
const swim = {
  code: "no" as const,
  not_before: null,
  text: "No: cloudy.",
  reasons: ["Cloudy.", "pH 9."],
  because,
  also: because.slice(1),
};

it("says every reason once", async () => {
  willAnswer(`/pools/${SALT.id}`, { ...SALT, swim });
  render(<PoolHeader poolId={SALT.id} />);
  expect((await screen.findByTestId("swim")).textContent).toBe("No: cloudy.");
  expect(screen.getByTestId("swim-reasons").textContent).toBe(" pH 9.");
  expect(screen.getByText(/^pH 9\. Stands on/).textContent).toBe("pH 9. Stands on: pH; law B.3 of advice.");
});

it("says on a phone how many more reasons a tap shows", async () => {
  willAnswer(`/pools/${SALT.id}`, { ...SALT, swim });
  const { unmount } = render(<PoolHeader poolId={SALT.id} whole />);
  expect(await screen.findByText("And 1 more.")).toBeTruthy();
  unmount();
  willAnswer(`/pools/${SALT.id}`, { ...SALT, swim: { ...swim, code: "yes" as const, text: "Yes." } });
  render(<PoolHeader poolId={SALT.id} whole />);
  expect((await screen.findByTestId("swim")).textContent).toBe("Yes.");
  expect(screen.queryByText("And 1 more.")).toBeNull();
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
    because: [],
    also: [],
  };
  expect(swimText({ ...SALT, swim })).toBe("not before 7:00 PM: chlorine is high");
});

it("leads to the steps where the next thing is a procedure", async () => {
  const next = { ...SALT.next, text: "Find the leak", station: "do/leak" };
  willAnswer(`/pools/${SALT.id}`, { ...SALT, next });
  render(<PoolHeader poolId={SALT.id} />);
  expect((await screen.findByText("find the leak")).getAttribute("href")).toBe(
    `/pools/${SALT.id}/care/do/leak`,
  );
});
