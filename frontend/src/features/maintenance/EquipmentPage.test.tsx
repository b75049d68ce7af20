import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { EquipmentPage } from "./EquipmentPage";

it("stands cell, filter, pump and controller side by side", async () => {
  render(<EquipmentPage />, {
    at: `/pools/${SALT.id}/care/equipment`,
    route: "/pools/:poolId/care/equipment",
  });
  for (const name of ["Cell", "Filter", "Circulation", "Controller and weather", "Pump, filter and cell"])
    expect(await screen.findByText(name)).toBeTruthy();
  expect(recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`).cell).not.toBeNull();
});
