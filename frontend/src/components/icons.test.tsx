import { expect, it } from "vitest";
import { render } from "../testing/render";
import { Icon, isIcon } from "./icons";

it("is drawn for the eye only; a word stands beside it", () => {
  const { container } = render(<Icon name="goggles" />);
  expect(container.querySelector("svg")?.getAttribute("aria-hidden")).toBe("true");
  expect(isIcon("goggles")).toBe(true);
  expect(isIcon("a dial")).toBe(false);
});
