import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { InventoryLine, Preferences } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { Measures } from "./Measures";

const habits = recordedAt<Preferences>("/habits");
const shelf = recordedAt<InventoryLine[]>("/shelf");

it.each(["us", "metric"] as const)(
  "kept unchanged in %s units, it says what is stored, to the last digit",
  async (units) => {
    const { user } = render(<Measures habits={habits} shelf={shelf} units={units} />);
    await user.click(screen.getByText("Keep these"));
    await waitFor(() => expect(sentTo("/habits")).toHaveLength(1));
    expect(sentTo("/habits")[0]).toMatchObject({
      storage: `${habits.storage_c} c`,
      drain_rate: `${habits.drain_l_per_h} l`,
      fill_rate: `${habits.fill_l_per_h} l`,
      containers: (habits.containers ?? []).map((box) => ({
        name: box.name,
        holds: box.volume_ml != null ? `${box.volume_ml} ml` : `${box.mass_g} g`,
      })),
    });
  },
);

it("adds and removes a measure, and says what is missing", async () => {
  const { user } = render(<Measures habits={habits} shelf={shelf} units="us" />);
  await user.click(screen.getByText("Add a measure"));
  const [, , added] = screen.getAllByLabelText("You call it");
  if (added) await user.type(added, "red scoop");
  willRefuse("/habits", "red scoop: say how much it holds.", "containers");
  await user.click(screen.getByText("Keep these"));
  expect(await screen.findByText("red scoop: say how much it holds.")).toBeTruthy();
  await user.click(screen.getByLabelText("Remove red scoop"));
  expect(screen.getAllByLabelText("You call it")).toHaveLength(2);
});
