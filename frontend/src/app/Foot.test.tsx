import { act, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../testing/render";
import { Foot } from "./Foot";

it("tells what stays above it how high it is, each time a bar comes or goes", () => {
  let changed = () => {};
  class Watcher {
    constructor(onChange: () => void) {
      changed = onChange;
    }
    observe() {}
    disconnect() {}
  }
  vi.stubGlobal("ResizeObserver", Watcher);
  const { unmount } = render(<Foot>bars</Foot>);
  screen.getByText("bars").getBoundingClientRect = () => new DOMRect(0, 0, 390, 129.6);
  act(changed);
  const page = document.documentElement.style;
  expect(page.getPropertyValue("--foot")).toBe("129px");
  unmount();
  expect(page.getPropertyValue("--foot")).toBe("");
});
