import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { willAnswer } from "../../testing/server";
import { NoticePage } from "./NoticePage";

const where = { at: `/pools/${SALT.id}/notice`, route: "/pools/:poolId/notice" };

it("says that the pool is closed, and that a test opens it", async () => {
  render(<NoticePage />, where);
  expect(await screen.findByText("No swimming")).toBeTruthy();
  expect(screen.getByText(SALT.settings.name)).toBeTruthy();
  expect(screen.getByText(/opens after a test, not by the clock/)).toBeTruthy();
});

it("says so where it is not needed, and never yes and no on one paper", async () => {
  willAnswer(`/pools/${SALT.id}`, { ...SALT, swim: { code: "yes", text: "Yes.", not_before: null } });
  render(<NoticePage />, where);
  expect(await screen.findByText(/this notice is not needed now/)).toBeTruthy();
  expect(screen.queryByText("Yes.")).toBeNull();
});
