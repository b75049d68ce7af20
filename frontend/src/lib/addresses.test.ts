import { expect, it } from "vitest";
import { addressOf } from "./addresses";

it("leads to what is done at a pool, at a step of care, and on the shelf of all", () => {
  expect(addressOf("p", "board")).toBe("/pools/p");
  expect(addressOf("p", "slip")).toBe("/pools/p/test");
  expect(addressOf("p", "shock")).toBe("/pools/p/plan?plan=shock");
  expect(addressOf("p", "do/backwash")).toBe("/pools/p/care/do/backwash");
  expect(addressOf("p", "shelf")).toBe("/shelf");
  expect(addressOf("p", "nowhere")).toBeNull();
});
