import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { address, render } from "../../testing/render";
import { sentTo, willRefuse, willReply } from "../../testing/server";
import { JoinPage } from "./JoinPage";

const where = { at: "/join/s3cret", route: "/join/:secret" };

it("lets the invited choose a login and a password", async () => {
  willReply("/auth/link", { kind: "invite", name: "Ada Holm" }, 200);
  const { user } = render(<JoinPage />, where);
  expect(await screen.findByText("Welcome, Ada Holm")).toBeTruthy();
  await user.type(screen.getByLabelText("Email or user name to sign in with"), "ada");
  await user.type(screen.getByLabelText("Password"), "three words of mine");
  await user.click(screen.getByText("Join"));
  await waitFor(() => expect(address()).toBe("/"));
  expect(sentTo("/auth/join")).toEqual([{ secret: "s3cret", login: "ada", password: "three words of mine" }]);
});

it("asks for no login where only the password is new", async () => {
  willReply("/auth/link", { kind: "reset", name: "Ada Holm" }, 200);
  render(<JoinPage />, where);
  expect(await screen.findByText("A new password for Ada Holm")).toBeTruthy();
  expect(screen.queryByLabelText("Email or user name to sign in with")).toBeNull();
});

it("says that a link is dead, and leads on", async () => {
  willRefuse("/auth/link", "This link was used.", null, 404);
  render(<JoinPage />, where);
  expect((await screen.findByRole("alert")).textContent).toBe("This link was used.");
  expect(screen.getByText("To signing in").getAttribute("href")).toBe("/");
});
