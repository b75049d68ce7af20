import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Rescue } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { TreatOrDrain } from "./TreatOrDrain";

const begun = recordedAt<Rescue>(`/pools/${SALT.id}/rescue?by_ratio=true#begun`);

it("sets the ways side by side with the reason", () => {
  render(<TreatOrDrain seen={begun} poolId={SALT.id} busy={false} onLimits={() => undefined} />);
  expect(screen.getByText(begun.compared.reasons[0] ?? "none")).toBeTruthy();
  expect(screen.getByLabelText("The ways side by side").textContent).toContain(begun.compared.ways[0]?.title);
});

it("hands on other limits as they were typed", async () => {
  const onLimits = vi.fn();
  const { user } = render(<TreatOrDrain seen={begun} poolId={SALT.id} busy={false} onLimits={onLimits} />);
  const field = screen.getByLabelText("Calcium, ppm");
  await user.clear(field);
  expect(screen.getByText("Type numbers over 0, like 100.")).toBeTruthy();
  await user.type(field, "1,200");
  await user.click(screen.getByText("Set these limits"));
  expect(onLimits).toHaveBeenCalledWith("100", "1,200");
});
