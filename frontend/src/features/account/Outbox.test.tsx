import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willAnswer } from "../../testing/server";
import { Outbox } from "./Outbox";

const mail = (part: object) => ({
  id: "6a1f0c5e-0000-4000-8000-000000000001",
  kind: "due",
  address: "ann@example.com",
  subject: "Today: Mill",
  text: "Mill: test now.",
  created_at: "2026-07-01T17:00:00Z",
  next_at: "2026-07-01T17:00:00Z",
  tries: 0,
  state: "queued",
  sent_at: null,
  trouble: "",
  ...part,
});

it("says what went, what waits, and tries again what was given up", async () => {
  const failed = mail({ id: "f", state: "failed", tries: 7, trouble: "nobody there" });
  willAnswer("/outbox", [
    mail({}),
    mail({ id: "s", state: "sent", sent_at: "2026-07-01T17:00:00Z" }),
    failed,
  ]);
  const { user } = render(<Outbox />);
  expect(await screen.findByText(/waits$/)).toBeTruthy();
  expect(screen.getByText(/given up after 7 tries/)).toBeTruthy();
  expect(screen.getByText("nobody there")).toBeTruthy();
  await user.click(screen.getByText("Try again"));
  await waitFor(() => expect(sentTo("/outbox/f/again")).toHaveLength(1));
});
