import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { CirculationCard } from "./CirculationCard";

const benches = recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`);

it("tells the pump's day in hours, turnovers and money, in the clock of the reader", async () => {
  render(<CirculationCard bench={benches.circulation} />);
  expect(await screen.findByText(/a day, 1\.1 turnovers/)).toBeTruthy();
  expect(await screen.findByText(/\$1\.76 a day/)).toBeTruthy();
  expect(screen.getByText(/\d+:\d\d AM to \d+:\d\d PM/)).toBeTruthy();
});

it("says so where the timer is not set", () => {
  render(<CirculationCard bench={{ ...benches.circulation, windows: [] }} />);
  expect(screen.getByText(/set the timer’s windows below/)).toBeTruthy();
});
