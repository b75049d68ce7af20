import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { SeasonPage } from "./SeasonPage";

const where = { at: `/pools/${SALT.id}/season`, route: "/pools/:poolId/season" };

it("shows the year as one strip, and the lists below", async () => {
  render(<SeasonPage />, where);
  expect(await screen.findByLabelText("Season ribbon")).toBeTruthy();
  expect(await screen.findByLabelText("A new opening or closing")).toBeTruthy();
});

it("says what begins the strip", async () => {
  const season = recordedAt<object>(`/pools/${SALT.id}/season`);
  willAnswer(`/pools/${SALT.id}/season`, { ...season, marks: [], warmth: [] });
  render(<SeasonPage />, where);
  expect(await screen.findByText(/The first test begins the strip/)).toBeTruthy();
});
