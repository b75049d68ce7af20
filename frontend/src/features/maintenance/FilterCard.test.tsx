import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { FilterCard } from "./FilterCard";

const benches = recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`);

it("draws the gauge since the last cleaning, and says when it is full", () => {
  render(<FilterCard filter={benches.filter} zone="America/Chicago" units="us" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
    `Filter pressure: ${benches.filter.trend?.points.length} readings`,
  );
  expect(screen.getByText(/11\.0 psi|11 psi/, { selector: "p" })).toBeTruthy();
});

it("asks for the gauge where none was read, and doubts one that cannot be right", () => {
  const filter = { ...benches.filter, trend: null, doubt: "The gauge does not go to zero." };
  render(<FilterCard filter={filter} zone="UTC" units="metric" />);
  expect(screen.getByText(/Note the gauge now and then/)).toBeTruthy();
  expect(screen.getByText("The gauge does not go to zero.")).toBeTruthy();
});
