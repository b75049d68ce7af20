import { act, render, screen } from "@testing-library/react";
import { expect, it, vi } from "vitest";

vi.resetModules();
const { useOncePainted } = await import("./useOncePainted");

function Page() {
  return <p>{useOncePainted() ? "all of it" : "the head"}</p>;
}

it("waits for the app's first frame, and for none after it", async () => {
  const frames: FrameRequestCallback[] = [];
  vi.spyOn(window, "requestAnimationFrame").mockImplementation((frame) => frames.push(frame));
  const first = render(<Page />);
  expect(screen.getByText("the head")).toBeTruthy();
  await act(async () => frames.shift()?.(0));
  expect(await screen.findByText("all of it")).toBeTruthy();
  first.unmount();
  render(<Page />);
  expect(screen.getByText("all of it")).toBeTruthy();
  expect(frames).toEqual([]);
});
