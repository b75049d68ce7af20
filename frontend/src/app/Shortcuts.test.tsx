import { fireEvent, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { address, render, SALT } from "../testing/render";
import { Shortcuts } from "./Shortcuts";

beforeEach(() => {
  HTMLDialogElement.prototype.showModal = function showModal() {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close() {
    this.open = false;
  };
});

it("leads to this pool's stations by one letter", async () => {
  const { queries } = render(<Shortcuts />, { at: `/pools/${SALT.id}` });
  await waitFor(() => expect(queries.isFetching()).toBe(0));
  fireEvent.keyDown(document.body, { key: "t" });
  expect(address()).toBe(`/pools/${SALT.id}/test`);
  fireEvent.keyDown(document.body, { key: "r" });
  expect(address()).toBe("/round");
  fireEvent.keyDown(document.body, { key: "e" });
  expect(address()).toBe("/emergency");
});

it("is off while one types, and with other keys held", async () => {
  const { queries } = render(
    <>
      <input aria-label="Note" />
      <Shortcuts />
    </>,
    { at: "/shelf" },
  );
  await waitFor(() => expect(queries.isFetching()).toBe(0));
  fireEvent.keyDown(screen.getByLabelText("Note"), { key: "p" });
  fireEvent.keyDown(document.body, { key: "p", ctrlKey: true });
  expect(address()).toBe("/shelf");
  fireEvent.keyDown(document.body, { key: "p" });
  expect(address()).toBe("/");
});

it("is listed on a press of ?", async () => {
  const { user } = render(<Shortcuts />);
  fireEvent.keyDown(document.body, { key: "?" });
  expect(screen.getByRole<HTMLDialogElement>("dialog").open).toBe(true);
  await user.click(screen.getByText("Close"));
  expect(screen.getByRole<HTMLDialogElement>("dialog").open).toBe(false);
});
