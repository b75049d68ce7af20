import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { PlanDrawingData } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt } from "../testing/server";
import { PlanDrawing } from "./PlanDrawing";

const plan = recordedAt<PlanDrawingData>(`/pools/${SALT.id}/plan`);

it("says in words what it draws: size, and what is marked", () => {
  const { rerender } = render(<PlanDrawing plan={plan} units="us" show="sample" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toBe(
    "Plan of the pool, 36 ft by 17 ft, the place to sample marked",
  );
  expect(screen.getByText("sample here")).toBeTruthy();
  rerender(<PlanDrawing plan={plan} units="metric" show="pour" />);
  expect(screen.getByRole("img").getAttribute("aria-label")).toContain("the pouring path marked");
  expect(screen.getByText("deep end")).toBeTruthy();
});

it("marks skimmer, returns and drain", () => {
  render(<PlanDrawing plan={plan} units="us" />);
  expect(screen.getByText("skimmer")).toBeTruthy();
  expect(screen.getAllByText("return").length).toBe(
    plan.fixtures.filter(({ kind }) => kind === "return").length,
  );
});
