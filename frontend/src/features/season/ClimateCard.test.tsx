import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Climate } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
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
