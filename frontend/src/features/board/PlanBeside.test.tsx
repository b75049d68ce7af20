import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { PoolHeaderData, Treatment } from "../../api/types";
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

it("gives way to a rescue, named by what is next or as one that goes on", () => {
  const head = recordedAt<PoolHeaderData>(`/pools/${SALT.id}`);
  const next = { ...head.next, text: "Plan the rescue", why: "The water is green." };
  const { rerender } = render(<RescueBeside poolId={SALT.id} head={{ ...head, next, treating: false }} />);
  expect(screen.getByRole("heading").textContent).toBe("Plan the rescue");
  rerender(<RescueBeside poolId={SALT.id} head={{ ...head, next, treating: true }} />);
  expect(screen.getByRole("heading").textContent).toBe("The rescue goes on");
  expect(screen.getByText("Open the rescue board").getAttribute("href")).toBe(`/pools/${SALT.id}/rescue`);
});
