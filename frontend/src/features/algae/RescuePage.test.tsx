import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willAnswer } from "../../testing/server";
import { RescuePage } from "./RescuePage";

const path = `/pools/${SALT.id}/rescue?by_ratio=true`;
const where = { at: `/pools/${SALT.id}/rescue`, route: "/pools/:poolId/rescue" };

it("begins a rescue as it is set", async () => {
  const { user } = render(<RescuePage />, where);
  await user.click(await screen.findByText("Begin the rescue"));
  await waitFor(() => expect(sentTo("/rescue")).toMatchObject([{ severity: "green", by_ratio: true }]));
});

it("shows where a rescue stands, and ends it when a person says so", async () => {
  willAnswer(path, recordedAt(`${path}#begun`));
  const { user } = render(<RescuePage />, where);
  expect(await screen.findByLabelText("Signs of the end")).toBeTruthy();
  expect(screen.getByText<HTMLButtonElement>("It is clear: end the rescue").disabled).toBe(true);
  await user.click(screen.getByText("It was drained"));
  await waitFor(() => expect(sentTo("/rescue/end")).toMatchObject([{ outcome: "drained" }]));
});
