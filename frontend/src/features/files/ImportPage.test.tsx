import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { ImportView } from "../../api/files";
import { address, render, SALT } from "../../testing/render";
import { sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { ImportPage } from "./ImportPage";
import { CHOICES, FILE, VIEW } from "./testing";

const path = `/imports/${FILE.id}`;
const PREVIEW = {
  made: 1,
  questioned: 1,
  refused: 1,
  read: 3,
  rows: 3,
  shown: [
    {
      number: 3,
      verdict: "questioned",
      says: "tested pH 7.4",
      remarks: [{ column: 1, text: "Look again." }],
    },
    { number: 4, verdict: "refused", says: "", remarks: [{ column: null, text: "This row has no day." }] },
  ],
};

function show(part: Partial<ImportView["file"]> = {}) {
  willAnswer("/imports/choices", CHOICES);
  willAnswer(path, { ...VIEW, file: { ...FILE, ...part } });
  willReply("/preview", PREVIEW, 200);
  return render(<ImportPage />, { at: `/files/${FILE.id}`, route: "/files/:fileId" });
}

it("shows the guess beside the rows, and brings the file in for the pool that was chosen", async () => {
  const { user } = show();
  expect(await screen.findByText("Look again.")).toBeTruthy();
  expect(screen.getByText("This row has no day.")).toBeTruthy();
  willReply("/preview", PREVIEW, 200);
  await user.selectOptions(await screen.findByLabelText("Which pool"), SALT.id);
  await waitFor(() => expect(sentTo("/preview").at(-1)).toMatchObject({ pool_id: SALT.id }));
  await waitFor(() => expect(screen.getByText("Bring it in")).toHaveProperty("disabled", false));
  await user.click(screen.getByText("Bring it in"));
  await waitFor(() => expect(sentTo("/apply")).toMatchObject([{ pool_id: SALT.id, kind: "notebook" }]));
});

it("says in one sentence what is missing, and cannot be sent so", async () => {
  willAnswer("/imports/choices", CHOICES);
  willAnswer(path, VIEW);
  willRefuse("/preview", "Say which pool this is of.", "pool_id");
  render(<ImportPage />, { at: `/files/${FILE.id}`, route: "/files/:fileId" });
  expect(await screen.findByText("Say which pool this is of.")).toBeTruthy();
  expect(screen.getByText("Bring it in")).toHaveProperty("disabled", true);
});

it("forgets a file", async () => {
  const { user } = show();
  await user.click(await screen.findByText("Forget this file"));
  await waitFor(() => expect(address()).toBe("/files"));
});

it("shows how far it is, and takes all of it back", async () => {
  show({ state: "queued", done: 1, total: 3 });
  expect(await screen.findByText("1 of 3 rows are read")).toBeTruthy();
});

it("takes all of it back", async () => {
  const { user } = show({ state: "applied" });
  willReply("/undo", 12, 200);
  await user.click(await screen.findByText("Take it all back"));
  expect(await screen.findByText(/12 entries are taken back/)).toBeTruthy();
});
