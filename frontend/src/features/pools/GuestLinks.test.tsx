import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../../testing/render";
import { sentTo, willAnswer, willReply } from "../../testing/server";
import { GuestLinks } from "./GuestLinks";

const link = {
  id: "11111111-1111-4111-8111-111111111111",
  name: "",
  pool_id: SALT.id,
  created_at: "2026-06-01T12:00:00Z",
  expires_at: "2026-08-30T12:00:00Z",
  ended_at: null,
};

it("makes a link that is shown once, and takes it back", async () => {
  const { user } = render(<GuestLinks poolId={SALT.id} zone="America/Chicago" />);
  willReply("/guest-links", { id: link.id, path: "/guest/s3cret" });
  willAnswer("/guest-links", [link]);
  await user.click(screen.getByText("Make a guest link"));
  expect((await screen.findByTestId("guest-link")).textContent).toContain("/guest/s3cret");
  expect(await screen.findByText("Made Mon, Jun 1, open until Sun, Aug 30")).toBeTruthy();
  await user.click(screen.getByText("Take back"));
  await waitFor(() => expect(sentTo(`/guest-links/${link.id}/end`)).toHaveLength(1));
});
