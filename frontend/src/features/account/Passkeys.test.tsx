import { screen, waitFor } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import { render } from "../../testing/render";
import { sentTo, willAnswer, willReply } from "../../testing/server";
import { Passkeys } from "./Passkeys";

/** A device that makes a passkey of four bytes, whatever it is asked. */
function deviceWithLock() {
  const bytes = new Uint8Array([1, 2, 3, 4]).buffer;
  const credential = {
    id: "AQIDBA",
    rawId: bytes,
    type: "public-key",
    authenticatorAttachment: "platform",
    getClientExtensionResults: () => ({}),
    response: {
      attestationObject: bytes,
      clientDataJSON: bytes,
      getTransports: () => ["internal"],
      getPublicKeyAlgorithm: () => -7,
      getPublicKey: () => bytes,
      getAuthenticatorData: () => bytes,
    },
  };
  vi.stubGlobal("PublicKeyCredential", class {});
  vi.stubGlobal("navigator", {
    ...navigator,
    userAgent: "",
    credentials: { create: async () => credential },
  });
}
const options = JSON.stringify({ challenge: "AQ", user: { id: "AQ" }, excludeCredentials: [] });
const state = { me: null, first: false, demo: [], passkeys: true };
const known = { id: "k1", name: "a phone", created_at: "2026-06-01T12:00:00Z", used_at: null };

it("adds this device, and removes one", async () => {
  deviceWithLock();
  willAnswer("/auth/state", state);
  willReply("/me/passkeys/offer", { options }, 200);
  const { user } = render(<Passkeys passkeys={[known]} />);
  await user.click(await screen.findByText("Add this device"));
  await waitFor(() => expect(sentTo("/me/passkeys")).toHaveLength(1));
  const [{ credential, name } = {}] = sentTo("/me/passkeys");
  expect(JSON.parse(String(credential)).rawId).toBe("AQIDBA");
  expect(name).toBe("a computer");
  await user.click(screen.getByText("Remove"));
  await waitFor(() => expect(sentTo("/me/passkeys/k1/end")).toHaveLength(1));
});

it("offers none at a bare address", async () => {
  willAnswer("/auth/state", { ...state, passkeys: false });
  render(<Passkeys passkeys={[]} />);
  await waitFor(() => expect(screen.queryByText("Add this device")).toBeNull());
});
