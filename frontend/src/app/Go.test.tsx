import { expect, it } from "vitest";
import { lastPoolStore } from "../lib/lastPool";
import { address, render, SALT } from "../testing/render";
import { Go } from "./Go";

it("leads to the pool that was open last, or to the pools", () => {
  lastPoolStore.set("");
  const { unmount } = render(<Go />, { at: "/go/test", route: "/go/:what" });
  expect(address()).toBe("/");
  unmount();
  lastPoolStore.set(SALT.id);
  render(<Go />, { at: "/go/test", route: "/go/:what" });
  expect(address()).toBe(`/pools/${SALT.id}/test`);
});
