import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render } from "../../testing/render";
import { sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { FilesPage } from "./FilesPage";
import { FILE, VIEW } from "./testing";

const chosen = (name: string) => new File(["Date,pH\n6/3/26,7.4\n"], name);

it("sends a table and goes on to how it is read", async () => {
  willAnswer("/imports", []);
  willReply("/imports", VIEW);
  const { user } = render(<FilesPage />);
  await user.upload(await screen.findByLabelText(/Drop a file here/), chosen("book.csv"));
  await waitFor(() => expect(address()).toBe(`/files/${FILE.id}`));
});

it("says in place what a file is not, and brings a journal and a workspace in", async () => {
  willAnswer("/imports", [{ ...FILE, state: "applied" }]);
  const { user } = render(<FilesPage />);
  const input = await screen.findByLabelText(/Drop a file here/);
  willRefuse("/imports", "file: is neither CSV nor XLSX.", "file");
  await user.upload(input, chosen("photo.csv"));
  expect((await screen.findByRole("alert")).textContent).toContain("neither CSV nor XLSX");
  expect(input.getAttribute("aria-invalid")).toBe("true");
  willReply("/journals", { pool_id: "p", name: "Mill", added: 3, known: 1 });
  await user.upload(input, chosen("journal.jsonl"));
  expect(await screen.findByText("Mill: 3 entries came in, 1 stood here already.")).toBeTruthy();
  willReply("/workspace/archive", { pools: 2, entries: 9, people: 0, products: 0 });
  await user.upload(input, chosen("all.zip"));
  expect(await screen.findByText("2 pools with 9 new entries came in.")).toBeTruthy();
  expect(sentTo("/workspace/archive")).toHaveLength(1);
  expect(screen.getByText(/brought in$/)).toBeTruthy();
});
