import { screen } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willRefuse, willReply } from "../../testing/server";
import { UnsubscribePage } from "./UnsubscribePage";

const where = { at: "/unsubscribe/abc", route: "/unsubscribe/:secret" };

it("ends all mail with one press, and says what a dead link is", async () => {
  const { user, unmount } = render(<UnsubscribePage />, where);
  willReply("/auth/unsubscribe", true, 200);
  await user.click(screen.getByText("End it"));
  expect(await screen.findByText(/Nothing more comes by mail/)).toBeTruthy();
  expect(sentTo("/auth/unsubscribe")).toEqual([{ secret: "abc" }]);
  unmount();
  const again = render(<UnsubscribePage />, where);
  willRefuse("/auth/unsubscribe", "This link does not work any more.", null, 404);
  await again.user.click(screen.getByText("End it"));
  expect(await screen.findByText("This link does not work any more.")).toBeTruthy();
});
