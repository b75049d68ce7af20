import { screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { useMe } from "../../lib/me";
import { address, render, SALT } from "../../testing/render";
import { willAnswer, willRefuse, willReply } from "../../testing/server";
import { GuestPage } from "./GuestPage";

const where = { at: "/guest/s3cret", route: "/guest/:secret" };

it("leads to the pool that the link opens", async () => {
  willReply("/auth/guest", { id: null, name: "", role: "guest", pool_id: SALT.id }, 200);
  render(<GuestPage />, where);
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}`));
});

it("says that it was taken back", async () => {
  willRefuse("/auth/guest", "Ask for a new one.", null, 404);
  render(<GuestPage />, where);
  expect((await screen.findByRole("alert")).textContent).toBe("Ask for a new one.");
});

function Who() {
  return <p>{useMe()?.role ?? "nobody"}</p>;
}

it("asks anew who one is, though a first question is still on its way", async () => {
  const guest = { id: null, name: "", role: "guest", pool_id: SALT.id, workspace: "" };
  const nobody = { me: null, first: false, demo: [], passkeys: false };
  willReply("/auth/guest", guest, 200);
  willAnswer("/auth/state", nobody);
  const quick = globalThis.fetch;
  let late: () => void = () => undefined;
  const opened = new Promise<void>((resolve) => {
    late = resolve;
  });
  let asked = 0;
  vi.stubGlobal("fetch", async (request: Request) => {
    const reply = await quick(request);
    if (new URL(request.url).pathname.endsWith("/auth/state") && asked++ === 0) await opened;
    return reply;
  });
  render(
    <>
      <Who />
      <GuestPage />
    </>,
    { at: "/guest/s3cret" },
  );
  expect(screen.getByText("nobody")).toBeTruthy();
  willAnswer("/auth/state", { ...nobody, me: guest });
  await waitFor(() => expect(address()).toBe(`/pools/${SALT.id}`));
  late();
  expect(await screen.findByText("guest")).toBeTruthy();
});
