import { screen, within } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import type { AuthState } from "../api/types";
import { render, SALT } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { Rail, ThumbBar } from "./Frame";

const state = recordedAt<AuthState>("/auth/state");

beforeEach(() => {
  HTMLDialogElement.prototype.showModal = function showModal() {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function close() {
    this.open = false;
  };
});

it("has the four things of the poolside under the thumb, the rest behind More", async () => {
  const { user } = render(<ThumbBar />, { at: `/pools/${SALT.id}/test` });
  const bar = within(await screen.findByLabelText("Stations of this pool"));
  expect(bar.getAllByRole("link").map(({ textContent }) => textContent)).toEqual([
    "Today",
    "Test",
    "Plan",
    "Log",
  ]);
  expect(bar.getByText("Test").className).toContain("active");
  expect(screen.getByRole("dialog").textContent).toBe("");
  await user.click(bar.getByText("More"));
  const more = within(screen.getByRole("dialog", { name: "More" }));
  expect(more.getByText("Season").getAttribute("href")).toBe(`/pools/${SALT.id}/season`);
  expect(more.getByText("Emergency").getAttribute("href")).toBe("/emergency");
  await user.click(more.getByText("Close"));
  expect(screen.getByRole<HTMLDialogElement>("dialog").open).toBe(false);
  await user.click(bar.getByText("More"));
  expect(screen.getByRole<HTMLDialogElement>("dialog").open).toBe(true);
  expect(more.getByText("Season")).toBeTruthy();
});

it("shows a guest what a guest may read, and nobody a bar who is not signed in", async () => {
  willAnswer("/auth/state", { ...state, me: { ...state.me, role: "guest" } });
  const { unmount } = render(<ThumbBar />, { at: `/pools/${SALT.id}` });
  const bar = await screen.findByLabelText("Stations of this pool");
  expect(bar.textContent).toBe("TodayPlanReportNoticeMore");
  unmount();
  willAnswer("/auth/state", { ...state, me: null });
  render(<ThumbBar />);
  expect(screen.queryByText("More")).toBeNull();
});

it("stands at the left of a desk with the pool's stations before the house's", async () => {
  render(<Rail />, { at: `/pools/${SALT.id}` });
  const rail = await screen.findByLabelText("Main");
  await within(rail).findByText("Round");
  expect(rail.textContent).toMatch(/Today.*Test.*Plan.*Log.*Pools.*Round.*Products.*Help.*Emergency/);
});

it("draws units and light once the menu is opened", async () => {
  const { user } = render(<Rail />, { at: `/pools/${SALT.id}` });
  const settings = await screen.findByLabelText("Settings");
  expect(screen.queryByLabelText("Light")).toBeNull();
  await user.click(settings);
  expect(await screen.findByLabelText("Light")).toBeTruthy();
});
