import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { MeasureHistory } from "../../api/types";
import { address, render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { HistoryCard } from "./HistoryCard";

const histories = recordedAt<MeasureHistory[]>(`/pools/${SALT.id}/history`);

it("tells all measures over time as a table, and one by its address", async () => {
  const { user } = render(<HistoryCard poolId={SALT.id} zone="America/Chicago" />);
  await user.click(screen.getByText("All"));
  await user.click(await screen.findByText("Table"));
  const table = await screen.findByLabelText("History as a table");
  expect(table.querySelectorAll("tbody tr").length).toBeGreaterThan(0);
  expect([...table.querySelectorAll("th")].map((cell) => cell.textContent)).toEqual([
    "When",
    "Free chlorine",
    "pH",
    "Done",
  ]);
  await user.selectOptions(screen.getByLabelText("Measure"), "ph");
  expect(address()).toBe("/?measure=ph");
});

it("says that nothing was tested in this time", async () => {
  willAnswer(`/pools/${SALT.id}/history`, [{ ...histories[0], points: [] }]);
  render(<HistoryCard poolId={SALT.id} zone="America/Chicago" />);
  expect(await screen.findByText("Free chlorine was not tested in this time.")).toBeTruthy();
});
