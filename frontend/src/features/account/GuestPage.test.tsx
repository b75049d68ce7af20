import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render, SALT } from "../../testing/render";
import { willRefuse, willReply } from "../../testing/server";
import { GuestPage } from "./GuestPage";

const where = { at: "/guest/s3cret", route: "/guest/:secret" };

it("leads to the pool that the link opens", async () => {
  willReply("/auth/guest", { id: null, name: "", role: "guest", pool_id: SALT.id }, 200);
  render(<GuestPage />, where);
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}`));
});

it("says that it was taken back", async () => {
  willRefuse("/auth/guest", "Ask for a new one.", null, 404);
  render(<GuestPage />, where);
  expect((await screen.findByRole("alert")).textContent).toBe("Ask for a new one.");
});
