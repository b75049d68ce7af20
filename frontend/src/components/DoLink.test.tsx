import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../testing/render";
import { recordedAt, willAnswer } from "../testing/server";
import { DoLink } from "./DoLink";

it("leads there, but says only the words to a guest", async () => {
  const { unmount } = render(<DoLink to="/there">test the water</DoLink>);
  expect(screen.getByRole("link", { name: "test the water" }).getAttribute("href")).toBe("/there");
  unmount();
  const state = recordedAt<{ me: object }>("/auth/state");
  willAnswer("/auth/state", { ...state, me: { ...state.me, role: "guest" } });
  render(<DoLink to="/there">test the water</DoLink>);
  expect(await screen.findByText("test the water")).toBeTruthy();
  await expect.poll(() => screen.queryByRole("link")).toBeNull();
});
