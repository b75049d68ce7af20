import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { CellCard } from "./CellCard";

const benches = recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`);

it("sets what the cell makes against what the pool uses, and looks for a fault", async () => {
  if (!benches.cell) throw new Error("no cell");
  const { user } = render(<CellCard cell={benches.cell} poolId={SALT.id} zone="America/Chicago" />);
  expect(screen.getByText("Makes")).toBeTruthy();
  expect(screen.getByText(/Now \d+ % for/)).toBeTruthy();
  const tree = benches.cell.trees.find(({ key }) => key === "low_salt");
  await user.click(screen.getByText(tree?.title ?? ""));
  expect(await screen.findByText("Where does a hand test put salt in the unit's window?")).toBeTruthy();
});

it("asks for the cell's setting where none was told", () => {
  if (!benches.cell) throw new Error("no cell");
  render(
    <CellCard cell={{ ...benches.cell, bench: null, setting: null, life: null }} poolId="p" zone="UTC" />,
  );
  expect(screen.getByText("in the log").getAttribute("href")).toBe("/pools/p/log");
});
