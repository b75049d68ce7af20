import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { TrainingGame } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { ReviewCard } from "./ReviewCard";

const game = recordedAt<TrainingGame>("POST /practice/play");

it("sets the learner's run beside the plan's, with the lesson", () => {
  if (!game.review) throw new Error("no review");
  render(<ReviewCard review={game.review} game={game} />);
  expect(screen.getByText(game.review.lesson)).toBeTruthy();
  expect(screen.getByLabelText("Yours and the plan's").textContent).toContain("Pours, tests0, 1");
});
