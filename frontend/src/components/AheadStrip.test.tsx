import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Outlook } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { AheadStrip } from "./AheadStrip";

const outlook = recordedAt<Outlook>(`/pools/${SALT.id}/outlook`);

it("shows free chlorine on each coming evening, in figures and words", async () => {
  render(<AheadStrip poolId={SALT.id} zone="America/Chicago" />);
  const week = await screen.findByLabelText("Free chlorine on the coming evenings");
  expect(week.querySelectorAll("li")).toHaveLength(outlook.days.length);
  expect(week.textContent).toContain(outlook.days[0]?.likely.toFixed(1));
});

it("says what begins the forecast, where there is none", async () => {
  willAnswer(`/pools/${SALT.id}/outlook`, { ...outlook, days: [], sentences: [] });
  render(<AheadStrip poolId={SALT.id} zone="America/Chicago" />);
  expect(await screen.findByText("The first test of free chlorine begins the forecast.")).toBeTruthy();
});
