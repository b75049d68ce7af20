import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { ShockChoice } from "../api/shock";
import { render, SALT } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { ShockWith } from "./ShockWith";

const path = `/pools/${SALT.id}/shock-products`;
const choices = recordedAt<ShockChoice[]>(path);
const first = choices[0] as ShockChoice;

it("offers what stands at the pool, and leaves it to the plan again", async () => {
  const picked = vi.fn();
  const { user } = render(<ShockWith poolId={SALT.id} use={first.id} onPick={picked} />);
  const field = await screen.findByLabelText("With");
  expect(screen.getAllByRole("option")).toHaveLength(choices.length + 1);
  await user.selectOptions(field, "");
  expect(picked).toHaveBeenLastCalledWith(null);
  await user.selectOptions(field, (choices[1] as ShockChoice).id);
  expect(picked).toHaveBeenLastCalledWith(choices[1]?.id);
});

it("asks nothing where there is no choice", async () => {
  willAnswer(path, choices.slice(0, 1));
  render(<ShockWith poolId={SALT.id} use={null} onPick={vi.fn()} />);
  expect(screen.queryByLabelText("With")).toBeNull();
});

it("says why a product may not go in here, and keeps a choice that does not stand here", async () => {
  willAnswer(path, [{ ...first, why_not: "Its calcium scales the plates." }, ...choices.slice(1)]);
  const { rerender } = render(<ShockWith poolId={SALT.id} use={first.id} onPick={vi.fn()} />);
  expect(await screen.findByText("Its calcium scales the plates.")).toBeTruthy();
  rerender(<ShockWith poolId={SALT.id} use="elsewhere" onPick={vi.fn()} />);
  expect(screen.getByRole("option", { name: "What does not stand here now" })).toBeTruthy();
});
