import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../../testing/render";
import { PlanPicker } from "./PlanPicker";

it("asks the questions of the plan that is picked", async () => {
  const change = vi.fn();
  const { user, rerender } = render(<PlanPicker asked={{}} change={change} />);
  await user.selectOptions(screen.getByLabelText("Plan"), "shock");
  expect(change).toHaveBeenCalledWith({ plan: "shock" });
  rerender(<PlanPicker asked={{ plan: "shock" }} change={change} />);
  await user.selectOptions(screen.getByLabelText("Why"), "storm");
  expect(change).toHaveBeenLastCalledWith({ plan: "shock", reason: "storm" });
});

it("hands a drain's target on as it is typed", async () => {
  const change = vi.fn();
  const { user } = render(
    <PlanPicker asked={{ plan: "drain", measure: "calcium_hardness" }} change={change} />,
  );
  await user.type(screen.getByLabelText("To, ppm"), "3");
  expect(change).toHaveBeenCalledWith({ plan: "drain", measure: "calcium_hardness", wanted: "3" });
});
