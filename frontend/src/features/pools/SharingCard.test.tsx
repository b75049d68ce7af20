import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render, SALT } from "../../testing/render";
import { sentTo, willAnswer, willReply } from "../../testing/server";
import { SharingCard } from "./SharingCard";

const share = { id: "s1", workspace: "The Oduya household", since: "2026-06-01T12:00:00Z", leaves: false };
const path = `/pools/${SALT.id}/shares`;

it("offers a pool by a link that is shown once, and takes the offer back", async () => {
  willAnswer(path, { home: "Firm", own: true, shares: [], offers: [] });
  const { user } = render(<SharingCard poolId={SALT.id} zone="America/Chicago" />);
  willReply("/shares", { id: null, path: "/share/s3cret" });
  const offer = { id: "o1", created_at: "2026-06-01T12:00:00Z", expires_at: "2026-06-15T12:00:00Z" };
  const button = await screen.findByText("Share this pool");
  willAnswer(path, { home: "Firm", own: true, shares: [], offers: [offer] });
  await user.click(button);
  expect((await screen.findByTestId("share-link")).textContent).toContain("/share/s3cret");
  expect(await screen.findByText("Offered, open until Mon, Jun 15")).toBeTruthy();
  await user.click(screen.getByText("Take back"));
  await waitFor(() => expect(sentTo("/offers/o1/end")).toHaveLength(1));
});

it("says what each keeps before it ends", async () => {
  willAnswer(path, { home: "Firm", own: true, shares: [share], offers: [] });
  const { user } = render(<SharingCard poolId={SALT.id} zone="America/Chicago" />);
  await user.click(await screen.findByText("End …"));
  expect(screen.getByText(/The Oduya household keeps a copy/)).toBeTruthy();
  await user.click(screen.getByText("Yes, end it"));
  await waitFor(() => expect(sentTo("/shares/s1/end")).toHaveLength(1));
});

it("lets the other one leave, and only that", async () => {
  willAnswer(path, { home: "Firm", own: false, shares: [{ ...share, leaves: true }], offers: [] });
  const { user } = render(<SharingCard poolId={SALT.id} zone="America/Chicago" />, {
    at: `/pools/${SALT.id}/setup`,
    route: "/pools/:poolId/setup",
  });
  await user.click(await screen.findByText("Leave …"));
  expect(screen.queryByText("Share this pool")).toBeNull();
  await user.click(screen.getByText("Yes, end it"));
  await waitFor(() => expect(address()).toBe("/"));
});
