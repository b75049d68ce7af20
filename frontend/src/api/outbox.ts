import { keep, readSaved } from "../lib/store";
import { Trouble, take } from "./client";

/** Something told to the journal that the server has not answered yet. Its id makes a resend harmless. */
export interface Waiting {
  path: string;
  body: { id: string };
  what: string;
  /** Why the server would not have it; null while it has not answered at all. */
  refused: string | null;
}

const KEY = "kumpan.outbox";
const AGAIN_MS = 10_000;

let waiting: readonly Waiting[] = parsed(readSaved(KEY));
let onSent: () => void = () => undefined;
const listeners = new Set<() => void>();

export const SAVED = Symbol("kept on this device");

export const outbox = {
  get: () => waiting,
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  discard: (id: string) => set(waiting.filter((one) => one.body.id !== id)),
};

/** Post, or keep it on this device when the server does not answer; what is refused at once is thrown. */
export async function postOrKeep<T>(
  path: string,
  body: { id: string; at?: string | null },
  what: string,
): Promise<T | typeof SAVED> {
  const timed = { ...body, at: body.at ?? new Date().toISOString() };
  try {
    return await post<T>(path, body);
  } catch (error) {
    if (!(error instanceof Trouble) || error.status !== 0) throw error;
    set([...waiting, { path, body: timed, what, refused: null }]);
    return SAVED;
  }
}

function post<T>(path: string, body: object): Promise<T> {
  return take<T>(
    fetch(path, {
      method: "POST",
      headers: { "Content-Type": "application/json" },
      body: JSON.stringify(body),
    }).then(async (response) => {
      const data: unknown = await response.json().catch(() => undefined);
      return response.ok ? { data: data as T, response } : { error: data, response };
    }),
  );
}

/** Send what waits, in order; stop at the first that gets no answer. */
export async function sendWaiting(): Promise<void> {
  for (const one of waiting.filter(({ refused }) => refused === null)) {
    try {
      await post<unknown>(one.path, one.body);
      outbox.discard(one.body.id);
      onSent();
    } catch (error) {
      if (!(error instanceof Trouble) || error.status === 0 || error.status >= 500) return;
      const refused = error.message;
      set(waiting.map((other) => (other === one ? { ...one, refused } : other)));
    }
  }
}

/** Try again on return of the network, and every few seconds while something waits. */
export function keepSending(sent: () => void): () => void {
  onSent = sent;
  const send = () => {
    if (waiting.some(({ refused }) => refused === null)) void sendWaiting();
  };
  send();
  const timer = window.setInterval(send, AGAIN_MS);
  window.addEventListener("online", send);
  return () => {
    window.clearInterval(timer);
    window.removeEventListener("online", send);
  };
}

function set(next: readonly Waiting[]): void {
  waiting = next;
  keep(KEY, next.length === 0 ? null : JSON.stringify(next));
  for (const listener of listeners) listener();
}

function parsed(text: string | null): Waiting[] {
  try {
    const value: unknown = JSON.parse(text ?? "[]");
    return Array.isArray(value) ? (value as Waiting[]) : [];
  } catch {
    return [];
  }
}
