import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { History } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { HistoryChart } from "./HistoryChart";

it("says in words what the chart shows", () => {
  const history = recordedAt<History>(`/pools/${SALT.id}/history/ph`);
  render(<HistoryChart history={history} zone="America/Chicago" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain(
    `pH over time: ${history.points.length} tests`,
  );
});
