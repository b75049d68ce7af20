import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Board, PoolHeaderData } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { BoardPage } from "./BoardPage";

const board = recordedAt<Board>(`/pools/${SALT.id}/board`);
const where = { at: `/pools/${SALT.id}`, route: "/pools/:poolId" };

it("shows every measure between its ropes, with its verdict", async () => {
  render(<BoardPage />, where);
  const table = await screen.findByRole("table", { name: "Lane board" });
  for (const { name } of board.lanes) expect(table.textContent).toContain(name);
});

it("says what to do first, where nothing was tested", async () => {
  const lanes = board.lanes.map((lane) => ({ ...lane, reading: null, planned: null, trail: [] }));
  willAnswer(`/pools/${SALT.id}/board`, { ...board, tested_at: null, lanes });
  render(<BoardPage />, where);
  expect((await screen.findAllByText(/test/i)).length).toBeGreaterThan(0);
});

it("offers no usual plan beside the board where a rescue is what comes next", async () => {
  const head = recordedAt<PoolHeaderData>(`/pools/${SALT.id}`);
  const next = { ...head.next, station: "rescue", text: "Plan the rescue", why: "The water is green." };
  willAnswer(`/pools/${SALT.id}`, { ...head, next, treating: false });
  render(<BoardPage />, where);
  expect(await screen.findByRole("region", { name: "Rescue" })).toBeTruthy();
  expect(screen.queryByRole("region", { name: "Plan" })).toBeNull();
});
