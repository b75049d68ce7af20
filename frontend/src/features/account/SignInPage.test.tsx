import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import type { AuthState } from "../../api/types";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willRefuse, willReply } from "../../testing/server";
import { SignInPage } from "./SignInPage";

const demo = recordedAt<AuthState>("/auth/state");

it("lets in the demo's people by one tap, and says that it is a demo", async () => {
  const { user } = render(<SignInPage state={{ ...demo, me: null }} />);
  expect(screen.getByText("This is a demo")).toBeTruthy();
  const [first] = demo.demo;
  await user.click(screen.getByText(first?.name ?? "none"));
  await waitFor(() => expect(sentTo("/auth/demo")).toEqual([{ person_id: first?.id }]));
});

it("asks for a code only where one is due, and keeps what was typed", async () => {
  const { user } = render(<SignInPage state={{ me: null, first: false, passkeys: false, demo: [] }} />);
  await user.type(screen.getByLabelText("Email or user name"), "mara");
  await user.type(screen.getByLabelText("Password"), "three words of mine");
  willRefuse("/auth/sign-in", "This name and password do not go together.", "password", 401);
  await user.click(screen.getByText("Sign in", { selector: "button" }));
  expect(await screen.findByText("This name and password do not go together.")).toBeTruthy();
  willReply("/auth/sign-in", { needs_code: true }, 200);
  await user.click(screen.getByText("Sign in", { selector: "button" }));
  await user.type(await screen.findByLabelText("Code of your authenticator app"), "123456");
  willReply("/auth/sign-in", { needs_code: false }, 200);
  await user.click(screen.getByText("Sign in", { selector: "button" }));
  await waitFor(() => expect(sentTo("/auth/sign-in")).toHaveLength(3));
  expect(sentTo("/auth/sign-in")[2]).toEqual({
    login: "mara",
    password: "three words of mine",
    code: "123456",
  });
  expect(Object.keys(localStorage).join()).not.toContain("password");
});

it("takes in the first person by the code of the terminal", async () => {
  const { user } = render(<SignInPage state={{ me: null, first: true, passkeys: false, demo: [] }} />);
  await user.type(screen.getByLabelText("Code from the terminal"), "abcd");
  await user.type(screen.getByLabelText("Your name, as the log shall show it"), "Mara Vell");
  await user.type(screen.getByLabelText("Email or user name to sign in with"), "mara");
  await user.type(screen.getByLabelText("Password"), "three words of mine");
  await user.click(screen.getByText("Begin"));
  await waitFor(() =>
    expect(sentTo("/auth/first")).toEqual([
      { code: "abcd", name: "Mara Vell", login: "mara", password: "three words of mine" },
    ]),
  );
});
