import { screen, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willAnswer } from "../../testing/server";
import { PushHere } from "./PushHere";

const AT = `https:${"//"}push.example.com/one`;
let open: string | null = null;

function aBrowser(permission: NotificationPermission) {
  const said = { endpoint: AT, keys: { p256dh: "point", auth: "secret" } };
  const one = { endpoint: AT, toJSON: () => said, unsubscribe: async () => (open = null) };
  const pushManager = {
    getSubscription: async () => (open === null ? null : one),
    subscribe: async () => {
      open = AT;
      return one;
    },
  };
  const worker = { pushManager };
  vi.stubGlobal("PushManager", class {});
  vi.stubGlobal("Notification", { requestPermission: async () => permission });
  Object.defineProperty(navigator, "serviceWorker", {
    configurable: true,
    value: { ready: Promise.resolve(worker), getRegistration: async () => worker },
  });
}

afterEach(() => {
  open = null;
  vi.stubGlobal("PushManager", undefined);
  Reflect.deleteProperty(window, "PushManager");
  Reflect.deleteProperty(navigator, "serviceWorker");
});

it("lets messages come to this browser, and ends them", async () => {
  aBrowser("granted");
  willAnswer("/me/push", { key: "house", devices: [] });
  const { user } = render(<PushHere />);
  const device = { id: "d1", name: "This phone", endpoint: AT, created_at: "2026-06-01T12:00:00Z" };
  const begin = await screen.findByText("Let messages come here");
  willAnswer("/me/push", { key: "house", devices: [device] });
  await user.click(begin);
  await waitFor(() =>
    expect(sentTo("/me/push").at(-1)).toMatchObject({ endpoint: AT, p256dh: "point", auth: "secret" }),
  );
  expect(await screen.findByText(/this one/)).toBeTruthy();
  await user.click(screen.getByLabelText("No more messages to This phone"));
  await waitFor(() => expect(open).toBeNull());
});

it("says how to allow it where the browser does not", async () => {
  aBrowser("denied");
  willAnswer("/me/push", { key: "house", devices: [] });
  const { user } = render(<PushHere />);
  await user.click(await screen.findByText("Let messages come here"));
  expect(await screen.findByText(/Allow notifications for this page/)).toBeTruthy();
});

it("says what else there is where a browser takes none", async () => {
  willAnswer("/me/push", { key: "house", devices: [] });
  render(<PushHere />);
  expect(await screen.findByText(/takes no messages/)).toBeTruthy();
});
