import { screen, waitFor } from "@testing-library/react";
import { expect, it } from "vitest";
import { render } from "../../testing/render";
import { recordedAt, sentTo, willAnswer, willRefuse } from "../../testing/server";
import { AccountPage } from "./AccountPage";

const account = recordedAt<{ me: { name: string } }>("/me");
const own = { ...account, login: "mara@example.org", second_factor: false };

it("says who I am and lets me out", async () => {
  const { user } = render(<AccountPage />);
  expect(await screen.findByText(account.me.name)).toBeTruthy();
  expect(screen.getByText("People, roles and invitations").getAttribute("href")).toBe("/people");
  await user.click(screen.getByText("Sign out"));
  await waitFor(() => expect(sentTo("/auth/sign-out")).toHaveLength(1));
});

it("changes the password, with what is wrong at its field", async () => {
  willAnswer("/me", own);
  const { user } = render(<AccountPage />);
  await user.type(await screen.findByLabelText("Password of now"), "wrong one");
  await user.type(screen.getByLabelText("New password"), "three words of mine");
  willRefuse("/me/password", "This is not your password of now.", "old");
  await user.click(screen.getByText("Change it"));
  expect(await screen.findByText("This is not your password of now.")).toBeTruthy();
  await user.click(screen.getByText("Change it"));
  expect(await screen.findByText(/signed out everywhere else/)).toBeTruthy();
});

it("signs out the other devices", async () => {
  const seen = { created_at: "2026-06-01T12:00:00Z", seen_at: "2026-06-01T12:00:00Z" };
  const devices = [
    { device: "a browser", this: true, ...seen },
    { device: "a phone", this: false, ...seen },
  ];
  willAnswer("/me", { ...own, devices });
  const { user } = render(<AccountPage />);
  await user.click(await screen.findByText("Sign out everywhere else"));
  await waitFor(() => expect(sentTo("/me/devices/end")).toHaveLength(1));
});
