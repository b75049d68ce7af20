import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { AuthState } from "../api/types";
import { personStore } from "../lib/person";
import { driverStore } from "../lib/round";
import { render } from "../testing/render";
import { isDown, recordedAt, willAnswer } from "../testing/server";
import { Gate } from "./Gate";

const state = recordedAt<AuthState>("/auth/state");

it("shows the page to who is signed in, and this device knows who that is", async () => {
  const driver = { ...state.me, id: "11111111-1111-4111-8111-111111111111", role: "technician" };
  willAnswer("/auth/state", { ...state, me: driver });
  render(<Gate>The page</Gate>);
  expect(await screen.findByText("The page")).toBeTruthy();
  await waitFor(() => expect(personStore.get()).toBe(driver.id));
  expect(driverStore.get()).toBe(driver.id);
});

it("shows the way in to everybody else, and the emergency page all the same", async () => {
  willAnswer("/auth/state", { me: null, first: false, demo: [] });
  const { unmount } = render(<Gate>The page</Gate>);
  expect(await screen.findByLabelText("Password")).toBeTruthy();
  expect(screen.queryByText("The page")).toBeNull();
  unmount();
  render(<Gate>Call for help</Gate>, { at: "/emergency" });
  expect(screen.getByText("Call for help")).toBeTruthy();
});

it("shows what this device keeps where the server cannot be reached", async () => {
  isDown();
  render(<Gate>What is kept</Gate>);
  expect(await screen.findByText("What is kept")).toBeTruthy();
});
