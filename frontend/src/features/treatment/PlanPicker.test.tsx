import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { ShockChoice } from "../../api/shock";
import type { InventoryLine } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { PlanPicker } from "./PlanPicker";

it("asks the questions of the plan that is picked", async () => {
  const change = vi.fn();
  const { user, rerender } = render(<PlanPicker poolId={SALT.id} asked={{}} change={change} />);
  await user.selectOptions(screen.getByLabelText("Plan"), "shock");
  expect(change).toHaveBeenCalledWith({ plan: "shock" });
  rerender(<PlanPicker poolId={SALT.id} asked={{ plan: "shock" }} change={change} />);
  await user.selectOptions(screen.getByLabelText("Why"), "storm");
  expect(change).toHaveBeenLastCalledWith({ plan: "shock", reason: "storm" });
});

it("hands a drain's target on as it is typed", async () => {
  const change = vi.fn();
  const { user } = render(
    <PlanPicker poolId={SALT.id} asked={{ plan: "drain", measure: "calcium_hardness" }} change={change} />,
  );
  await user.type(screen.getByLabelText("To, ppm"), "3");
  expect(change).toHaveBeenCalledWith({ plan: "drain", measure: "calcium_hardness", wanted: "3" });
});

it("offers what stands on the shelf for a dose by its label, and says where to put it", async () => {
  const shelf = recordedAt<InventoryLine[]>("/shelf");
  const clarifier = { ...shelf[0], id: "c", label: "Clear Blue", chemical: "clarifier", by_label: true };
  willAnswer("/shelf", [...shelf, clarifier]);
  const change = vi.fn();
  const { user } = render(
    <PlanPicker poolId={SALT.id} asked={{ plan: "label_dose", use: "c" }} change={change} />,
  );
  expect(await screen.findByRole("option", { name: "Clear Blue" })).toBeTruthy();
  await user.click(screen.getByLabelText("Upkeep"));
  expect(change).toHaveBeenLastCalledWith({ plan: "label_dose", use: "c", upkeep: true });
});

it("says where such a product is put on the shelf while there is none", async () => {
  willAnswer("/shelf", []);
  render(<PlanPicker poolId={SALT.id} asked={{ plan: "label_dose" }} change={vi.fn()} />);
  expect((await screen.findByText("add it with what its label says")).getAttribute("href")).toBe("/shelf");
});

it("lets a shock be poured with what the person chooses", async () => {
  const change = vi.fn();
  const { user } = render(<PlanPicker poolId={SALT.id} asked={{ plan: "shock" }} change={change} />);
  const [, other] = recordedAt<ShockChoice[]>(`/pools/${SALT.id}/shock-products`);
  await user.selectOptions(await screen.findByLabelText("With"), other?.label ?? "");
  expect(change).toHaveBeenLastCalledWith({ plan: "shock", use: other?.id });
});
