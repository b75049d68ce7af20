import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Choices } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { KitOrder } from "./KitOrder";

const choices = recordedAt<Choices>("/choices");
const props = {
  head: SALT,
  kit: "drops",
  usual: ["ph"] as const,
  order: ["free_chlorine", "ph"] as const,
  choices,
};

it("moves, leaves out and puts in, and keeps the order with the pool", async () => {
  const { user } = render(<KitOrder {...props} />);
  await user.click(screen.getByLabelText("pH earlier"));
  await user.click(screen.getByText("+ Salt"));
  await user.click(screen.getByLabelText("Leave out Free chlorine"));
  await user.click(screen.getByText("Keep this order"));
  expect(await screen.findByText("The test form follows your kit's order now.")).toBeTruthy();
  expect(sentTo("/settings")[0]?.settings).toEqual({
    ...SALT.settings,
    kit: "drops",
    kit_order: ["ph", "salt"],
  });
});

it("says what was refused", async () => {
  const { user } = render(<KitOrder {...props} />);
  willRefuse("/settings", "A measure stands twice.");
  await user.click(screen.getByText("Back to the usual box"));
  expect(await screen.findByText("A measure stands twice.")).toBeTruthy();
});
