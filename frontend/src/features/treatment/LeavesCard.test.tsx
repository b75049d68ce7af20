import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Board } from "../../api/types";
import { valueText } from "../../lib/measures";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { LeavesCard } from "./LeavesCard";

const board = recordedAt<Board>(`/pools/${SALT.id}/board`);

it("says where each measure comes to stand, and what the plan does not settle", async () => {
  render(<LeavesCard poolId={SALT.id} left={2} />);
  const card = await screen.findByLabelText("Leaves the water");
  expect(card.textContent).toContain("2 not settled by it");
  for (const { reading, planned, high, measure } of board.lanes) {
    const after = planned ?? reading;
    if (reading !== null && high !== null)
      expect(card.textContent).toContain(valueText(measure, after?.value ?? 0));
  }
});

it("is not there where nothing was tested", () => {
  willAnswer(`/pools/${SALT.id}/board`, { ...board, lanes: [] });
  render(<LeavesCard poolId={SALT.id} left={0} />);
  expect(screen.queryByLabelText("Leaves the water")).toBeNull();
});
