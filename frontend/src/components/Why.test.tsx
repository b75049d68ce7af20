import { screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { Board } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt } from "../testing/server";
import { Why } from "./Why";

const lane = recordedAt<Board>(`/pools/${SALT.id}/board`).lanes.find(({ working }) => working !== null);

beforeEach(() => {
  // jsdom draws no dialogs.
  HTMLDialogElement.prototype.showModal = function showModal() {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close() {
    this.open = false;
    this.dispatchEvent(new Event("close"));
  };
});

it("opens the working behind a number, with its origins, and closes it", async () => {
  const { user } = render(<Why about="Free chlorine" working={lane?.working} />);
  await user.click(screen.getByText("why"));
  expect(screen.getByText(lane?.working?.equation ?? "none")).toBeTruthy();
  expect(screen.getByText(lane?.working?.inputs[0]?.name ?? "none")).toBeTruthy();
  expect(screen.getByRole("dialog").textContent).toContain(lane?.working?.origins[0]?.reference);
  await user.click(screen.getByText("Close"));
  expect(screen.queryByRole("dialog")).toBeNull();
});

it("is not there where nothing was worked out", () => {
  render(<Why about="Free chlorine" working={null} />);
  expect(screen.queryByText("why")).toBeNull();
});
