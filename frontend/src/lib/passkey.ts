import { browserSupportsWebAuthn, startAuthentication, startRegistration } from "@simplewebauthn/browser";

/** Whether this browser makes passkeys, and where it does not need to ask twice. */
export const canPasskey = (): boolean => browserSupportsWebAuthn();

/** Asks the device to make a passkey by the server's options; its answer as the server reads it. */
export async function makePasskey(options: string): Promise<string> {
  return JSON.stringify(await startRegistration({ optionsJSON: JSON.parse(options) }));
}

/** Asks the device to prove whose it is. */
export async function signByPasskey(options: string): Promise<string> {
  return JSON.stringify(await startAuthentication({ optionsJSON: JSON.parse(options) }));
}
