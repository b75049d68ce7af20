import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { History } from "../../api/types";
import { address, render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { HistoryCard } from "./HistoryCard";

const history = recordedAt<History>(`/pools/${SALT.id}/history/free_chlorine`);

it("tells a measure over time as a table, and another measure by its address", async () => {
  const { user } = render(<HistoryCard poolId={SALT.id} zone="America/Chicago" />);
  await user.click(screen.getByText("All"));
  await user.click(await screen.findByText("Table"));
  expect(
    (await screen.findByLabelText("History as a table")).querySelectorAll("tbody tr").length,
  ).toBeGreaterThan(0);
  await user.selectOptions(screen.getByLabelText("Measure"), "ph");
  expect(address()).toBe("/?measure=ph");
});

it("says that nothing was tested in this time", async () => {
  willAnswer(`/pools/${SALT.id}/history/free_chlorine`, { ...history, points: [] });
  render(<HistoryCard poolId={SALT.id} zone="America/Chicago" />);
  expect(await screen.findByText("Free chlorine was not tested in this time.")).toBeTruthy();
});
