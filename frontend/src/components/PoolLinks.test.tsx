import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render, SALT } from "../testing/render";
import { sentTo, willAnswer, willReply } from "../testing/server";
import { PoolLinks } from "./PoolLinks";

const link = {
  id: "11111111-1111-4111-8111-111111111111",
  kind: "guest",
  name: "",
  pool_id: SALT.id,
  created_at: "2026-06-01T12:00:00Z",
  expires_at: "2026-08-30T12:00:00Z",
};

it("makes a link that is shown once, and takes it back", async () => {
  const { user } = render(<PoolLinks poolId={SALT.id} zone="America/Chicago" kind="guest" />);
  willReply("/links", { id: link.id, path: "/guest/s3cret" });
  willAnswer("/links", [link]);
  await user.click(screen.getByText("Make a guest link"));
  expect((await screen.findByTestId("guest-link")).textContent).toContain("/guest/s3cret");
  expect(await screen.findByText("Made Mon, Jun 1, open until Sun, Aug 30")).toBeTruthy();
  await user.click(screen.getByText("Take back"));
  await waitFor(() => expect(sentTo(`/links/${link.id}/end`)).toHaveLength(1));
});

it("lists calendar links by themselves, without an end", async () => {
  willAnswer("/links", [link, { ...link, id: "2", kind: "feed", expires_at: null }]);
  render(<PoolLinks poolId={SALT.id} zone="America/Chicago" kind="feed" />);
  expect(await screen.findByText("Made Mon, Jun 1")).toBeTruthy();
  expect(screen.getAllByText("Take back")).toHaveLength(1);
});
