import createClient from "openapi-fetch";
import { forgetKept, noteAnswer } from "./kept";
import type { paths } from "./schema";

/** A server that takes longer counts as one that does not answer: what was sent goes into the outbox. */
const WITHIN_MS = 30_000;
const READY_WITHIN_MS = 5_000;

// `fetch` is looked up at each call, so that a test may put its own in place.
export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: (request) =>
    fetch(request, { signal: AbortSignal.any([request.signal, AbortSignal.timeout(WITHIN_MS)]) }),
});

client.use({
  onResponse: ({ response, request }) => {
    if (request.method !== "GET") return;
    const kept = response.headers.get("kumpan-kept") !== null;
    noteAnswer(request.url, kept ? (response.headers.get("date") ?? new Date().toUTCString()) : null);
  },
});

/** Whether the server itself answers now: no answer kept on this device stands in for this one. */
export async function serverAnswers(): Promise<boolean> {
  const signal = AbortSignal.timeout(READY_WITHIN_MS);
  try {
    return (await fetch(`${window.location.origin}/api/ready`, { cache: "no-store", signal })).ok;
  } catch {
    return false;
  }
}

/** Nothing of whoever was signed in stays on this device. */
export async function forgetAnswers(): Promise<void> {
  forgetKept();
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
