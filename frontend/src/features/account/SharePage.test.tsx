import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render } from "../../testing/render";
import { sentTo, willAnswer, willRefuse, willReply } from "../../testing/server";
import { SharePage } from "./SharePage";

const where = { at: "/share/s3cret", route: "/share/:secret" };
const nobody = { me: null, first: false, demo: [], passkeys: true };

it("makes a workspace of their own for somebody without an account", async () => {
  willAnswer("/auth/state", nobody);
  willReply("/auth/share", { kind: "share", name: "Firm" }, 200);
  const { user } = render(<SharePage />, where);
  expect(await screen.findByText("Firm shares a pool with you")).toBeTruthy();
  await user.type(screen.getByLabelText("Your household or firm, as the log shall show it"), "Home");
  await user.type(screen.getByLabelText("Your name"), "Tomi");
  await user.type(screen.getByLabelText("Email or user name to sign in with"), "tomi");
  await user.type(screen.getByLabelText("Password"), "three words of mine");
  await user.click(screen.getByText("Take part"));
  await waitFor(() => expect(address()).toBe("/"));
  const typed = { household: "Home", name: "Tomi", login: "tomi", password: "three words of mine" };
  expect(sentTo("/auth/household")).toEqual([{ secret: "s3cret", ...typed }]);
});

it("lets an office take part with its workspace by one tap", async () => {
  const me = { id: "1", name: "Tomi", role: "office", pool_id: null, workspace: "Home" };
  willAnswer("/auth/state", { ...nobody, me });
  willReply("/auth/share", { kind: "share", name: "Firm" }, 200);
  willReply("/shares", "p1", 200);
  const { user } = render(<SharePage />, where);
  await user.click(await screen.findByText("Take part with Home"));
  await waitFor(() => expect(address()).toBe("/pools/p1"));
});

it("says that an offer is dead", async () => {
  willRefuse("/auth/share", "This link was used.", null, 404);
  render(<SharePage />, where);
  expect((await screen.findByRole("alert")).textContent).toBe("This link was used.");
});
