import { screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Choices } from "../../api/types";
import { render, SALT } from "../../testing/render";
import { recordedAt, willAnswer } from "../../testing/server";
import { KindOfPool } from "./KindOfPool";

const { presets } = recordedAt<Choices>("/choices");

it("fills the form with one tap where a pool is new, and says what follows", async () => {
  const onPick = vi.fn();
  const { user } = render(<KindOfPool presets={presets} poolId={undefined} onPick={onPick} />);
  await user.click(screen.getByText("Small soft-sided pool"));
  expect(onPick.mock.calls[0]?.[0]).toMatchObject({
    key: "soft_sided",
    school: "small_vinyl",
    covered: true,
  });
  expect(screen.getByText(/calcium is neither tested nor due/)).toBeTruthy();
});

it("says first what it would change at a pool that is set up", async () => {
  const onPick = vi.fn();
  willAnswer(`/pools/${SALT.id}/presets/soft_sided`, ["Surface: plaster becomes vinyl"]);
  willAnswer(`/pools/${SALT.id}/presets/plaster_salt`, []);
  const { user } = render(<KindOfPool presets={presets} poolId={SALT.id} onPick={onPick} />);
  await user.click(screen.getByText("Small soft-sided pool"));
  expect(await screen.findByText("Surface: plaster becomes vinyl")).toBeTruthy();
  expect(onPick).not.toHaveBeenCalled();
  await user.click(screen.getByText("Fill that in below"));
  expect(onPick).toHaveBeenCalledOnce();
  await user.click(screen.getByText("In-ground plaster, salt cell"));
  expect(await screen.findByText("This pool is set up as such a one.")).toBeTruthy();
});
