import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import type { AuthState } from "../api/types";
import { unitsStore } from "../lib/units";
import { render } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { modeStore } from "../theme/mode";
import { Choosers } from "./Choosers";

const state = recordedAt<AuthState>("/auth/state");

it("leads to who I am, and keeps the units and the light on this device", async () => {
  const { user } = render(<Choosers />);
  await user.selectOptions(screen.getByLabelText("Units"), "metric");
  await user.selectOptions(screen.getByLabelText("Light"), "sun");
  expect((await screen.findByText(`${state.me?.name}: account`)).getAttribute("href")).toBe("/account");
  expect(unitsStore.get()).toBe("metric");
  expect(modeStore.get()).toBe("sun");
});

it("names no guest", async () => {
  willAnswer("/auth/state", { ...state, me: { ...state.me, name: "A guest", role: "guest" } });
  render(<Choosers />);
  await screen.findByLabelText("Units");
  expect(screen.queryByText("A guest")).toBeNull();
});
