import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { heldBack, recordedAt, willAnswer } from "../../testing/server";
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

it("comes all at once: nothing stands where the year will be, to be pushed away", async () => {
  const go = heldBack("/season");
  render(<SeasonPage />, where);
  await screen.findAllByText(SALT.settings.name);
  expect(screen.getByLabelText("Loading the season")).toBeTruthy();
  expect(screen.queryByLabelText("A new opening or closing")).toBeNull();
  go();
  expect(await screen.findByLabelText("Season ribbon")).toBeTruthy();
  expect(await screen.findByLabelText("A new opening or closing")).toBeTruthy();
});
