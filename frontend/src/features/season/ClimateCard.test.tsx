import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Climate } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { ClimateCard } from "./ClimateCard";

const climate = recordedAt<Climate>(`/pools/${SALT.id}/climate`);

it("keeps months as stored where nothing was typed over them", async () => {
  const setClimate = vi.fn(async () => true);
  const { user } = render(<ClimateCard poolId={SALT.id} units="us" busy={false} setClimate={setClimate} />);
  await user.click(await screen.findByText("The table of months"));
  await user.clear(screen.getByLabelText("Feb, the middle"));
  await user.type(screen.getByLabelText("Feb, the middle"), "61 F");
  await user.click(screen.getByText("Keep this table"));
  const expected = climate.monthly_c.map((value) => `${value} c`);
  expect(setClimate).toHaveBeenCalledWith([expected[0], "61 F", ...expected.slice(2)]);
});

it("has no table of months for a pool indoors", async () => {
  const indoors = { on: null, source: "indoors" };
  willAnswer(`/pools/${SALT.id}/climate`, {
    ...climate,
    opening: indoors,
    closing: indoors,
    text: "Indoors.",
  });
  render(<ClimateCard poolId={SALT.id} units="us" busy={false} setClimate={vi.fn()} />);
  expect(await screen.findByText("Indoors.")).toBeTruthy();
  expect(screen.queryByText("The table of months")).toBeNull();
});
