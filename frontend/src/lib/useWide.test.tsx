import { act, render, screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { useWide } from "./useWide";

function Shown() {
  return useWide() ? "rail" : "bar";
}

it("follows the width of the window, also while one turns the tablet", () => {
  const listeners = new Set<() => void>();
  let matches = false;
  const before = window.matchMedia;
  window.matchMedia = (media) =>
    ({
      media,
      get matches() {
        return matches;
      },
      addEventListener: (_: string, one: () => void) => listeners.add(one),
      removeEventListener: (_: string, one: () => void) => listeners.delete(one),
    }) as unknown as MediaQueryList;
  const { unmount } = render(<Shown />);
  expect(screen.getByText("bar")).toBeTruthy();
  matches = true;
  act(() => {
    for (const one of listeners) one();
  });
  expect(screen.getByText("rail")).toBeTruthy();
  unmount();
  expect(listeners.size).toBe(0);
  window.matchMedia = before;
});
