import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Maintenance } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo } from "../../testing/server";
import { Rhythm } from "./Rhythm";

it("sets whose intervals hold, and nothing else of the pool", async () => {
  const care = recordedAt<Maintenance>(`/pools/${SALT.id}/care`);
  const { user } = render(<Rhythm head={SALT} care={care} />);
  await user.click(screen.getByText("Weekly visits"));
  await waitFor(() => expect(sentTo("/settings")).toHaveLength(1));
  expect(sentTo("/settings")[0]?.settings).toEqual({ ...SALT.settings, care_preset: "service" });
  await user.click(screen.getByText("April to October"));
  await waitFor(() =>
    expect(sentTo("/settings")[1]?.settings).toMatchObject({ season_months: [4, 5, 6, 7, 8, 9, 10] }),
  );
});
