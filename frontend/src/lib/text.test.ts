import { expect, it } from "vitest";
import { ended, unbroken } from "./text";

it("keeps a number and its unit on one line", () => {
  expect(unbroken("Liquid chlorine 10 %, now 9.7 %")).toBe("Liquid chlorine 10\u00a0%, now 9.7\u00a0%");
  expect(unbroken("3½ × blue cup (28 fl oz)")).toBe("3½ × blue cup (28\u00a0fl\u00a0oz)");
});

it("ends a sentence once", () => {
  expect(ended("Noted: pump on.")).toBe("Noted: pump on.");
  expect(ended("Noted: acid")).toBe("Noted: acid.");
});
