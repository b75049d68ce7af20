import { act, screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { forgetKept, noteAnswer } from "../api/kept";
import { postOrKeep, sendWaiting } from "../api/outbox";
import { render, SALT } from "../testing/render";
import { answering, isDown, sentTo, willAnswer, willRefuse } from "../testing/server";
import { OutboxBar } from "./OutboxBar";

const look = () =>
  postOrKeep(
    "/api/v1/pools/{pool_id}/looks",
    { path: { pool_id: SALT.id } },
    { id: crypto.randomUUID(), clarity: "clear", level: "normal", odd: [], note: "" },
    "A look",
  );
it("says how many entries wait, and sends them", async () => {
  isDown();
  await look();
  const { user } = render(<OutboxBar />);
  expect(screen.getByText(/One entry is not sent yet/)).toBeTruthy();
  act(() => noteAnswer("/plan", "Sat, 28 Nov 2026 16:10:00 GMT"));
  expect(screen.getByText(/What is shown was known 4:10/)).toBeTruthy();
  act(forgetKept);
  answering();
  await user.click(screen.getByText("Send now"));
  await waitFor(() => expect(sentTo("/looks")).toHaveLength(1));
  await waitFor(() => expect(screen.queryByText(/not sent yet/)).toBeNull());
});

it("says what was not taken and why, until a person drops it", async () => {
  isDown();
  await look();
  answering();
  willRefuse("/looks", "This pool is gone.", null, 404);
  await act(sendWaiting);
  const { user } = render(<OutboxBar />);
  expect(screen.getByText(/This pool is gone\./)).toBeTruthy();
  await user.click(screen.getByText("Drop it"));
  expect(screen.queryByText(/This pool is gone\./)).toBeNull();
});

it("sends what was not taken once more where a person says so", async () => {
  isDown();
  await look();
  answering();
  willRefuse("/looks", "Something went wrong.", null, 409);
  await act(sendWaiting);
  const { user } = render(<OutboxBar />);
  answering();
  await user.click(screen.getByText("Try again"));
  await waitFor(() => expect(sentTo("/looks")).toHaveLength(1));
  await waitFor(() => expect(screen.queryByText(/Something went wrong|not sent yet/)).toBeNull());
});

it("says from when what is shown is, while this device answers in the server's place", () => {
  noteAnswer("/pools", "Sat, 28 Nov 2026 16:10:00 GMT");
  const { unmount } = render(<OutboxBar />);
  expect(screen.getByText(/This is what was known/)).toBeTruthy();
  unmount();
  forgetKept();
  render(<OutboxBar />);
  expect(screen.queryByText(/This is what was known/)).toBeNull();
});

it("says so while any part of what is shown is kept, however fresh the others are", () => {
  noteAnswer("/plan", "Sat, 28 Nov 2026 16:10:00 GMT");
  noteAnswer("/log", "Sat, 28 Nov 2026 16:10:00 GMT");
  noteAnswer("/plan", null);
  render(<OutboxBar />);
  expect(screen.getByText(/This is what was known/)).toBeTruthy();
  act(() => noteAnswer("/log", null));
  expect(screen.queryByText(/This is what was known/)).toBeNull();
});

it("asks again by itself until the server answers, though no network came back", async () => {
  vi.useFakeTimers();
  try {
    noteAnswer("/plan", "Sat, 28 Nov 2026 16:10:00 GMT");
    isDown();
    render(<OutboxBar />);
    await act(() => vi.advanceTimersByTimeAsync(10_000));
    expect(screen.getByText(/This is what was known/)).toBeTruthy();
    answering();
    willAnswer("/api/ready", { ready: true, reason: "" });
    await act(() => vi.advanceTimersByTimeAsync(10_000));
    expect(screen.queryByText(/This is what was known/)).toBeNull();
  } finally {
    vi.useRealTimers();
  }
});
