import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { EquipmentView } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { DeviceCard } from "./DeviceCard";

const benches = recordedAt<EquipmentView>(`/pools/${SALT.id}/benches`);

it("shows what the controller says, and stops asking it", async () => {
  const { user } = render(<DeviceCard device={benches.device} poolId={SALT.id} units="us" />);
  expect(screen.getByText("Salt by the unit")).toBeTruthy();
  expect(screen.getByText(/Heard just now|Silent for/)).toBeTruthy();
  await user.click(screen.getByText("Stop polling"));
  await waitFor(() => expect(sentTo("/device")).toMatchObject([{ address: "" }]));
});

it("polls an address, and says at the field why it cannot", async () => {
  const device = { ...benches.device, address: "", last: null };
  const { user } = render(<DeviceCard device={device} poolId={SALT.id} units="metric" />);
  await user.type(screen.getByLabelText("Address on this machine"), "another machine");
  willRefuse("/device", "The address must be on this machine.", "address");
  await user.click(screen.getByText("Poll it"));
  expect(await screen.findByText("The address must be on this machine.")).toBeTruthy();
  await user.click(screen.getByText("Use the simulated one"));
  await waitFor(() => expect(sentTo("/device")[1]).toMatchObject({ address: "stand-in" }));
});
