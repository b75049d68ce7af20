import { fireEvent, screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import type { Treatment } from "../../api/types";
import { unbroken } from "../../lib/text";
import { render, SALT } from "../../testing/render";
import { recordedAt } from "../../testing/server";
import { BigSteps } from "./BigSteps";

const sheet = recordedAt<Treatment>(`/pools/${SALT.id}/sheet#started`);
const steps = sheet.steps.filter(({ step }) => step.kind !== "wait");
const [current, second] = steps;

function show(onTick = vi.fn(async () => true), onClose = vi.fn()) {
  if (current === undefined || second === undefined) throw new Error("the plan has no two steps");
  const page = render(
    <BigSteps
      sheet={sheet}
      current={current}
      zone="America/Chicago"
      busy={false}
      onTick={onTick}
      onClose={onClose}
    />,
  );
  return { ...page, current, second, onTick, onClose };
}

const drag = (from: number, to: number, down = 0) => {
  const layer = screen.getByLabelText("Big steps");
  fireEvent(layer, new MouseEvent("pointerdown", { clientX: from, clientY: 100, bubbles: true }));
  fireEvent(layer, new MouseEvent("pointerup", { clientX: to, clientY: 100 + down, bubbles: true }));
};

afterEach(() => {
  Reflect.deleteProperty(navigator, "wakeLock");
});

it("fills the screen with the step at hand and its cautions, and writes it down by its button alone", async () => {
  const { user, onTick, current, second } = show();
  expect(screen.getByRole("heading", { level: 2 }).textContent).toBe(unbroken(current.step.title));
  drag(300, 100);
  expect(screen.getByRole("heading", { level: 2 }).textContent).toBe(unbroken(second.step.title));
  expect(screen.queryByText("Poured all of it")).toBeNull();
  drag(100, 300);
  drag(300, 280); // a short stroke,
  drag(300, 100, 200); // and scrolling, are no swipes
  expect(screen.getByRole("heading", { level: 2 }).textContent).toBe(unbroken(current.step.title));
  expect(onTick).not.toHaveBeenCalled();
  for (const caution of current.step.cautions)
    expect(screen.getByLabelText("Big steps").textContent).toContain(caution);
  await user.click(screen.getByText(current.step.kind === "add" ? "Poured all of it" : "Done"));
  expect(onTick).toHaveBeenCalledWith("done");
});

it("the buttons do what a swipe does, and the way back is one tap", async () => {
  const { user, onClose, current } = show();
  expect(screen.getByText<HTMLButtonElement>("Step before").disabled).toBe(true);
  await user.click(screen.getByText("Step after"));
  await user.click(screen.getByText("To the step at hand"));
  expect(screen.getByRole("heading", { level: 2 }).textContent).toBe(unbroken(current.step.title));
  await user.click(screen.getByText("Close"));
  expect(onClose).toHaveBeenCalled();
});

it("keeps the screen on, asks again after a lock, lets go when it is closed, and says where it cannot", async () => {
  const locks: (EventTarget & { released: boolean; release: () => Promise<void> })[] = [];
  const request = vi.fn(async () => {
    const lock = Object.assign(new EventTarget(), {
      released: false,
      release: async () => {
        lock.released = true;
        lock.dispatchEvent(new Event("release"));
      },
    });
    locks.push(lock);
    return lock;
  });
  const bare = show();
  expect(screen.getByText("This device may lock itself")).toBeTruthy();
  bare.unmount();
  Object.defineProperty(navigator, "wakeLock", { configurable: true, value: { request } });
  const { unmount } = show();
  expect(await screen.findByText("The screen stays on")).toBeTruthy();
  await locks[0]?.release();
  expect(await screen.findByText("This device may lock itself")).toBeTruthy();
  fireEvent(document, new Event("visibilitychange"));
  expect(await screen.findByText("The screen stays on")).toBeTruthy();
  expect(request).toHaveBeenCalledTimes(2);
  unmount();
  await waitFor(() => expect(locks.every(({ released }) => released)).toBe(true));
});
