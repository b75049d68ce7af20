import { act, screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { keptSince } from "../api/client";
import { postOrKeep, sendWaiting } from "../api/outbox";
import { render, SALT } from "../testing/render";
import { answering, isDown, sentTo, willRefuse } from "../testing/server";
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
  keptSince.set("Sat, 28 Nov 2026 16:10:00 GMT");
  const { unmount } = render(<OutboxBar />);
  expect(screen.getByText(/This is what was known/)).toBeTruthy();
  unmount();
  keptSince.set("");
  render(<OutboxBar />);
  expect(screen.queryByText(/This is what was known/)).toBeNull();
});
