import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { Trouble } from "../../api/client";
import { render } from "../../testing/render";
import { AwayForm } from "./PlanForms";

const view = {
  first: "2026-11-30",
  today: "2026-11-30",
  technicians: [{ id: "anna", name: "Anna" }],
  days: [],
  unplaced: [],
  pools: [],
  absences: [],
};

it("shows at the field what is wrong with an absence", async () => {
  const away = vi.fn().mockRejectedValue(new Trouble("The last day comes after the first.", "last", 422));
  const { user } = render(<AwayForm view={view} firm={{ away } as never} />);
  await user.click(screen.getByText("Plan without"));
  expect(await screen.findByText("The last day comes after the first.")).toBeTruthy();
});
