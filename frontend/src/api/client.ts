import createClient from "openapi-fetch";
import { createStore } from "../lib/store";
import type { paths } from "./schema";

/** A server that takes longer counts as one that does not answer: what was sent goes into the outbox. */
const WITHIN_MS = 30_000;

// `fetch` is looked up at each call, so that a test may put its own in place.
export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) =>
    fetch(request, { signal: AbortSignal.any([request.signal, AbortSignal.timeout(WITHIN_MS)]) }),
});

/** When what is shown was known, while the network is gone and this device answers in the server's place. */
export const keptSince = createStore<string>("kumpan.kept-since", "", (text) => text);
keptSince.set("");

client.use({
  onResponse: ({ response, request }) => {
    if (request.method !== "GET") return;
    const kept = response.headers.get("kumpan-kept") !== null;
    const since = kept ? (response.headers.get("date") ?? new Date().toUTCString()) : "";
    if (keptSince.get() !== since) keptSince.set(since);
  },
});

/** Nothing of whoever was signed in stays on this device. */
export async function forgetAnswers(): Promise<void> {
  if ("caches" in window) await caches.delete("kumpan-answers");
}

/** What went wrong, in the server's one clear sentence; `field` names the input at fault. */
export class Trouble extends Error {
  readonly field: string | null;
  readonly status: number;

  constructor(message: string, field: string | null, status: number) {
    super(message);
    this.field = field;
    this.status = status;
  }
}

interface Reply<T> {
  data?: T | undefined;
  error?: unknown;
  response: Response;
}

/** The data of a reply, or Trouble. A server that cannot be reached is Trouble with status 0. */
export async function take<T>(reply: Promise<Reply<T>>): Promise<T> {
  let settled: Reply<T>;
  try {
    settled = await reply;
  } catch {
    throw new Trouble(
      "The server does not answer. What you typed is kept here; try again in a moment.",
      null,
      0,
    );
  }
  if (settled.response.ok) return settled.data as T;
  throw troubleOf(settled.error, settled.response.status);
}

function troubleOf(error: unknown, status: number): Trouble {
  const inner = isRecord(error) && isRecord(error.error) ? error.error : {};
  const message =
    typeof inner.message === "string" ? inner.message : "The server could not answer. Try once more.";
  return new Trouble(message, typeof inner.field === "string" ? inner.field : null, status);
}

function isRecord(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null;
}
