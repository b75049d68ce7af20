import { expect, it } from "vitest";
import { address, render, SALT } from "../testing/render";
import { Moved } from "./Moved";

it("leads from an address of before to today's, with what was asked in it", () => {
  render(<Moved to="/plan" />, { at: `/pools/${SALT.id}/sheet?plan=shock`, route: "/pools/:poolId/sheet" });
  expect(address()).toBe(`/pools/${SALT.id}/plan?plan=shock`);
});
