import { screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willAnswer } from "../../testing/server";
import { PutAway } from "./PutAway";

const names: string[] = [];
const pool = { id: "p1", name: "Old pool", archived_at: "2026-06-01T12:00:00Z", own: true };

it("deletes a pool only after its journal was downloaded", async () => {
  willAnswer("/archived-pools", [pool]);
  willAnswer("/journal-copies", []);
  willAnswer("/pools/p1/journal.jsonl", { format: "kumpan-journal" });
  URL.createObjectURL = () => "blob:journal";
  URL.revokeObjectURL = () => undefined;
  const click = vi.spyOn(HTMLAnchorElement.prototype, "click").mockImplementation(function (
    this: HTMLAnchorElement,
  ) {
    names.push(this.download);
  });
  const { user } = render(<PutAway />);
  const download = await screen.findByText("Download the journal");
  expect(screen.queryByText("Delete Old pool for good")).toBeNull();
  await user.click(download);
  await waitFor(() => expect(names).toEqual(["Old pool.jsonl"]));
  click.mockRestore();
});

it("brings a pool back, and links to journals kept", async () => {
  willAnswer("/archived-pools", [pool]);
  willAnswer("/journal-copies", [{ id: "k1", pool_id: "p2", name: "Left pool", at: "2026-06-01T12:00:00Z" }]);
  const { user } = render(<PutAway />);
  await user.click(await screen.findByText("Bring back"));
  await waitFor(() => expect(sentTo("/archive")).toEqual([{ back: true }]));
  expect(screen.getByText("Download it").getAttribute("href")).toBe("/api/v1/journal-copies/k1.jsonl");
});
