import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Maintenance } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { PlantForm } from "./PlantForm";

const { plant } = recordedAt<Maintenance>(`/pools/${SALT.id}/care`);

it.each(["us", "metric"] as const)(
  "kept unchanged in %s units, it says what is stored, to the last digit",
  async (units) => {
    const { user } = render(<PlantForm poolId={SALT.id} units={units} hasCell />);
    await user.click(await screen.findByText("Keep from now on"));
    await waitFor(() => expect(sentTo("/plant")).toHaveLength(1));
    expect(sentTo("/plant")[0]).toMatchObject({
      pump_flow: `${plant.pump_flow_l_min} l/min`,
      clean_pressure: `${plant.clean_pressure_kpa} kpa`,
      pump_kw: String(plant.pump_kw),
      cell_rated_h: String(plant.cell_rated_h),
      media_since: plant.media_since,
      cell_since: plant.cell_since,
      windows: plant.windows.map(({ start_min, end_min }) => [start_min, end_min]),
    });
  },
);

it("sends what is typed as it is typed, and says what was refused at its field", async () => {
  const { user } = render(<PlantForm poolId={SALT.id} units="us" hasCell />);
  const rated = await screen.findByLabelText<HTMLInputElement>("Cell’s rated hours");
  await user.clear(rated);
  await user.type(rated, "10,000");
  await user.click(screen.getByText("Add a window"));
  willRefuse("/plant", "cell_rated_h: must be at most 50000.", "cell_rated_h");
  await user.click(screen.getByText("Keep from now on"));
  expect(await screen.findByText("cell_rated_h: must be at most 50000.")).toBeTruthy();
  expect(rated.value).toBe("10,000");
  expect(sentTo("/plant")[0]).toMatchObject({ cell_rated_h: "10,000" });
  expect(sentTo("/plant")[0]?.windows).toHaveLength(plant.windows.length + 1);
});
