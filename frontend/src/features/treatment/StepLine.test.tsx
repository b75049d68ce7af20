import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Treatment } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { isHazardous, StepLine } from "./StepLine";

const started = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);
const pour = started.steps.find(({ step }) => step.kind === "add");

it("says what, how much, why, and the cautions", () => {
  if (!pour) throw new Error("nothing is poured");
  render(<StepLine line={pour} zone="America/Chicago" toldBeside={false} onUndo={() => undefined} />);
  expect(screen.getByText(pour.step.title)).toBeTruthy();
  expect(screen.getByText(pour.step.rounded_text ?? "none")).toBeTruthy();
  expect(screen.getByText((pour.step.cautions[0] ?? "none").trim())).toBeTruthy();
});

it("says what was done, and takes it back", async () => {
  if (!pour) throw new Error("nothing is poured");
  const ticked = {
    entry_id: "e",
    at: "2026-11-28T18:00:00Z",
    person_id: null,
    outcome: "done" as const,
    mass_g: null,
    volume_ml: null,
    amount_text: "10 fl oz",
  };
  const onUndo = vi.fn();
  const { user } = render(
    <StepLine line={{ ...pour, ticked }} zone="America/Chicago" toldBeside={false} onUndo={onUndo} />,
  );
  expect(screen.getByText("Done at 12:00 PM: 10 fl oz")).toBeTruthy();
  await user.click(screen.getByText("Undo"));
  expect(onUndo).toHaveBeenCalledWith("e");
});

it("draws a wait with its reason", () => {
  const wait = started.steps.find(({ step }) => step.kind === "wait");
  if (!wait) throw new Error("no wait");
  render(<StepLine line={wait} zone="UTC" toldBeside={false} onUndo={() => undefined} />);
  expect(screen.getByText(wait.step.why)).toBeTruthy();
});

it("knows what can hurt someone", () => {
  expect(isHazardous("acid")).toBe(true);
  expect(isHazardous("none")).toBe(false);
});
