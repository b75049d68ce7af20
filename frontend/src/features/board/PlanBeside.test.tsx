import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { Treatment } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { PlanBeside, RescueBeside } from "./PlanBeside";

const started = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);

it("tells the steps in short, and leads to the plan", async () => {
  willAnswer(`/pools/${SALT.id}/sheet`, started);
  render(<PlanBeside poolId={SALT.id} zone="America/Chicago" units="us" />);
  expect((await screen.findByText("go on")).getAttribute("href")).toBe(`/pools/${SALT.id}/plan`);
  const card = screen.getByLabelText("Plan");
  for (const { step } of started.steps)
    if (step.kind === "add") expect(card.textContent).toContain(step.title);
});

it("gives way to a rescue", () => {
  render(<RescueBeside poolId={SALT.id} why="The water is green." />);
  expect(screen.getByText("Open the rescue board").getAttribute("href")).toBe(`/pools/${SALT.id}/rescue`);
});
