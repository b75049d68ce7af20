import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { activeRoundStore, startRound } from "../lib/round";
import { address, render, SALT } from "../testing/render";
import { sentTo, willRefuse } from "../testing/server";
import { RoundBar } from "./RoundBar";

const stops = [
  { id: SALT.id, name: "Millrace Close" },
  { id: "other", name: "Weir Lane 4" },
];

it("ends a stop with its note, and leads to the next", async () => {
  startRound(stops);
  const { user } = render(<RoundBar />, { at: `/pools/${SALT.id}/plan` });
  expect(await screen.findByText("Stop 1 of 2")).toBeTruthy();
  await user.click(screen.getByText("Note"));
  await user.type(screen.getByLabelText("Note to the owner"), "gate was open");
  await user.click(screen.getByLabelText("This pool needs a return"));
  await user.click(screen.getByRole("button", { name: "Next stop: Weir Lane 4" }));
  await waitFor(() => expect(address()).toBe("/pools/other/test"));
  expect(sentTo("/visits")).toMatchObject([{ note: "gate was open", needs_return: true, trade: "" }]);
});

it("ends the round with its last stop", async () => {
  startRound(stops.slice(0, 1));
  const { user } = render(<RoundBar />, { at: `/pools/${SALT.id}/plan` });
  await user.click(await screen.findByText("End the round"));
  await waitFor(() => expect(address()).toBe("/round"));
  expect(activeRoundStore.get()).toBe("");
});

it("says what was refused and keeps the note", async () => {
  startRound(stops);
  const { user } = render(<RoundBar />, { at: `/pools/${SALT.id}` });
  await user.click(await screen.findByText("Note"));
  await user.type(screen.getByLabelText("Note to the owner"), "x");
  willRefuse("/visits", "This pool is not on your round.");
  await user.click(screen.getByRole("button", { name: /^Next stop/ }));
  expect(await screen.findByText("This pool is not on your round.")).toBeTruthy();
  expect(screen.getByLabelText<HTMLInputElement>("Note to the owner").value).toBe("x");
});

it("is not there away from the round", () => {
  render(<RoundBar />, { at: `/pools/${SALT.id}` });
  expect(screen.queryByLabelText("Round")).toBeNull();
});
