import { vi } from "vitest";
import recorded from "./answers.json";

/** The time the answers were recorded: tests are read at this moment. */
export const NOW = new Date(recorded.now);
const ANSWERS = recorded.answers as Record<string, unknown>;

interface Sent {
  path: string;
  body: Record<string, unknown>;
}

/** What was posted, oldest first. */
export const sent: Sent[] = [];
let replies: { end: string; status: number; body: unknown }[] = [];
let changed: Record<string, unknown> = {};
let down = false;
let held: { end: string; until: Promise<void> } | null = null;

/** The recorded answers, a page without anything sent. */
export function answering(): void {
  sent.length = 0;
  replies = [];
  changed = {};
  down = false;
  held = null;
  vi.stubGlobal("fetch", answer);
}

/** The next post to a path with this end is answered with this; without it all posts are taken. */
export function willReply(end: string, body: unknown, status = 201): void {
  replies.push({ end, status, body });
}

/** The next post to a path with this end is refused with one sentence, at a field. */
export function willRefuse(end: string, message: string, field: string | null = null, status = 422): void {
  willReply(end, { error: { code: "invalid", message, field } }, status);
}

/** What was posted to paths with this end, oldest first. */
export function sentTo(end: string): Record<string, unknown>[] {
  return sent.filter(({ path }) => path.endsWith(end)).map(({ body }) => body);
}

/** Another answer to a question than the recorded one. */
export function willAnswer(path: string, body: unknown): void {
  changed[path] = body;
}

/** What is asked or sent at paths with this end is answered only once the given function is called. */
export function heldBack(end: string): () => void {
  let go = () => {};
  held = {
    end,
    until: new Promise((resolve) => {
      go = resolve;
    }),
  };
  return go;
}

/** The server cannot be reached. */
export function isDown(): void {
  down = true;
}

/** A recorded answer, to begin with. */
export function recordedAt<T>(path: string): T {
  if (!(path in ANSWERS)) throw new Error(`Nothing was recorded at ${path}.`);
  return structuredClone(ANSWERS[path]) as T;
}

async function answer(input: Request | string, init?: RequestInit): Promise<Response> {
  if (down) throw new TypeError("no network");
  const request = new Request(input, init);
  const url = new URL(request.url);
  const path = url.pathname.replace("/api/v1", "");
  if (request.method === "POST") {
    const file = request.headers.get("content-type") === "application/octet-stream";
    const reply = posted(path, file ? {} : JSON.parse((await request.text()) || "{}"));
    if (held !== null && path.endsWith(held.end)) await held.until;
    return reply;
  }
  const asked = path + queryOf(url);
  if (held !== null && path.endsWith(held.end)) await held.until;
  const found = changed[asked] ?? ANSWERS[asked] ?? nearly(path);
  if (found === undefined) throw new Error(`Nothing was recorded at ${asked}.`);
  return Response.json(found);
}

/** A season's plan is recorded for one way a pool may stand; it is shaped alike for all. */
function nearly(path: string): unknown {
  if (!path.endsWith("/season-plan") && !path.endsWith("/offer")) return undefined;
  return Object.entries(ANSWERS).find(([key]) => key.startsWith(path))?.[1];
}

function posted(path: string, body: Record<string, unknown>): Response {
  sent.push({ path, body });
  const reply = replies.find(({ end }) => path.endsWith(end));
  replies = replies.filter((one) => one !== reply);
  const known = changed[path] ?? ANSWERS[`POST ${path}`];
  return Response.json(reply?.body ?? known ?? {}, { status: reply?.status ?? 201 });
}

function queryOf(url: URL): string {
  const asked = [...url.searchParams].filter(([name, value]) => name !== "metric" && value !== "");
  if (asked.length === 0) return "";
  const day = (name: string, value: string) => (name === "day" ? "soon" : value);
  return `?${asked.map(([name, value]) => `${name}=${day(name, value)}`).join("&")}`;
}
