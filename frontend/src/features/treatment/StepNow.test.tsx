import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Treatment } from "../../api/types";
import { unbroken } from "../../lib/text";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { StepNow } from "./StepNow";

const started = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);
const pour = started.steps.find(({ step }) => step.kind === "add");

const show = (onTick: Parameters<typeof StepNow>[0]["onTick"]) => {
  if (!pour) throw new Error("nothing is poured");
  return render(
    <StepNow
      sheet={started}
      current={pour}
      zone="America/Chicago"
      units="us"
      busy={false}
      takesFocus
      onTick={onTick}
      onBig={() => {}}
    />,
  );
};

it("stands with its caution above its button, and is ticked in one tap", async () => {
  const onTick = vi.fn(async () => true);
  const { user } = show(onTick);
  const page = screen.getByLabelText("Step now").textContent ?? "";
  expect(page.indexOf(pour?.step.cautions[0] ?? "none")).toBeLessThan(page.indexOf("Poured all of it"));
  expect(document.activeElement?.textContent).toBe(unbroken(pour?.step.title ?? ""));
  await user.click(screen.getByText("Poured all of it"));
  await user.click(screen.getByText("Not today"));
  expect(onTick.mock.calls).toEqual([["done"], ["skipped"]]);
});

it("takes another amount as it is typed", async () => {
  const onTick = vi.fn(async () => true);
  const { user } = show(onTick);
  await user.click(screen.getByText("Other amount"));
  await user.type(screen.getByLabelText("How much really went in"), "8 fl oz");
  await user.click(screen.getByText("Note this amount"));
  expect(onTick).toHaveBeenCalledWith("done", "8 fl oz");
});
