import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Opinion } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, sentTo, willRefuse } from "../../testing/server";
import { SecondOpinion } from "./SecondOpinion";

const opinion = recordedAt<Opinion>(`POST /pools/${SALT.id}/second-opinion`);

it("reckons what was advised, beside our own plan, and makes a sheet of it", async () => {
  const onAdopt = vi.fn();
  const { user } = render(<SecondOpinion poolId={SALT.id} units="us" onAdopt={onAdopt} />);
  await user.type(screen.getByLabelText("What was advised"), "salt 20 kg, soda 400 g");
  await user.click(screen.getByText("Compare"));
  expect(await screen.findByText("Read as:")).toBeTruthy();
  expect(sentTo("/second-opinion")).toEqual([{ text: "salt 20 kg, soda 400 g" }]);
  expect(screen.getByRole("table").textContent).toContain(opinion.rows[0]?.name);
  await user.click(screen.getByText("Make a plan of their advice"));
  expect(onAdopt).toHaveBeenCalledWith("salt 20 kg, soda 400 g");
});

it("says at the field what cannot be read", async () => {
  const { user } = render(<SecondOpinion poolId={SALT.id} units="us" />);
  await user.type(screen.getByLabelText("What was advised"), "?");
  willRefuse("/second-opinion", "Write a product and an amount.", "text");
  await user.click(screen.getByText("Compare"));
  expect(await screen.findByText("Write a product and an amount.")).toBeTruthy();
});
