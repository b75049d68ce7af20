import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Maintenance } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willAnswer } from "../../testing/server";
import { MaintenancePage } from "./MaintenancePage";

const care = recordedAt<Maintenance>(`/pools/${SALT.id}/care`);
const where = { at: `/pools/${SALT.id}/care`, route: "/pools/:poolId/care" };

it("lists every task with the way to do it", async () => {
  render(<MaintenancePage />, where);
  expect((await screen.findAllByText(care.items[0]?.title ?? "none")).length).toBeGreaterThan(0);
  expect(screen.getByText(care.procedures[0]?.title ?? "none").getAttribute("href")).toContain("/care/do/");
});

it("notes what happened in one tap", async () => {
  const { user } = render(<MaintenancePage />, where);
  await user.click(await screen.findByText("Storm or heavy rain"));
  await waitFor(() => expect(sentTo("/events")).toMatchObject([{ kind: "storm" }]));
});

it("takes the interval that the log suggests", async () => {
  const task = care.items[0]?.task ?? "";
  willAnswer(`/pools/${SALT.id}/care`, {
    ...care,
    offers: [{ task, days: 9.5, why: "That is how it was done." }],
  });
  const { user } = render(<MaintenancePage />, where);
  await user.click(await screen.findByText("Take it"));
  await waitFor(() => expect(sentTo("/care/interval")).toMatchObject([{ task, days: "9.5" }]));
});
