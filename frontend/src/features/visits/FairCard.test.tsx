import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../../testing/render";
import { willAnswer } from "../../testing/server";
import { FairCard } from "./FairCard";

const measure = { km: 16.1, longest_min: 300, shortest_min: 280 };

it("says why it could not be taken, and leaves all as it is", async () => {
  willAnswer("/rounds/fair", { before: measure, after: measure, rounds: [] });
  const firm = { takeFair: vi.fn().mockRejectedValue(new Error("The office decides.")) };
  const { user } = render(<FairCard firm={firm as never} />);
  await user.click(screen.getByText("Suggest"));
  await user.click(await screen.findByText("Take these days"));
  expect(await screen.findByText("The office decides.")).toBeTruthy();
  await user.click(screen.getByText("Leave as it is"));
  expect(screen.getByText("Suggest")).toBeTruthy();
});
