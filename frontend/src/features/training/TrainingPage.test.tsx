import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { TrainingGame, TrainingScenario } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { TrainingPage } from "./TrainingPage";

const game = recordedAt<TrainingGame>("POST /practice/play");

it("begins a practice pool, keeps it on this device, and leaves it", async () => {
  willAnswer("/practice/play", { ...game, over: false, review: null });
  const [first] = recordedAt<TrainingScenario[]>("/practice");
  const { user } = render(<TrainingPage />);
  await user.click(await screen.findByLabelText(`Begin: ${first?.title}`));
  expect(await screen.findByLabelText("At the pool")).toBeTruthy();
  expect(localStorage.getItem("kumpan.practice")).toContain(`"scenario":"${first?.key}"`);
  await user.click(screen.getByText("Another pool"));
  expect(await screen.findByLabelText(`Begin: ${first?.title}`)).toBeTruthy();
});

it("shows the review at the end", async () => {
  localStorage.setItem(
    "kumpan.practice",
    JSON.stringify({ scenario: "holiday", seed: 1, moves: [], finished: true }),
  );
  render(<TrainingPage />);
  expect(await screen.findByLabelText("The review")).toBeTruthy();
});
