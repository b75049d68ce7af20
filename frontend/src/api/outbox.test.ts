import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

// A page's own origin and store, as far as the outbox asks for them.
const kept = new Map<string, string>();
vi.stubGlobal("window", { location: { origin: "http://kumpan" } });
vi.stubGlobal("localStorage", {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
});
const { SAVED, outbox, postOrKeep, sendWaiting } = await import("./outbox");

const answers: (Response | Error)[] = [];
const asked: { path: string; body: { id: string; at?: string } }[] = [];

beforeEach(() => {
  vi.stubGlobal("fetch", async (path: string, init: RequestInit) => {
    asked.push({ path, body: JSON.parse(String(init.body)) });
    const next = answers.shift() ?? new TypeError("no network");
    if (next instanceof Error) throw next;
    return next;
  });
});
afterEach(() => {
  for (const one of [...outbox.get()]) outbox.discard(one.body.id);
  answers.length = 0;
  asked.length = 0;
});

const ok = () => new Response(JSON.stringify({ fine: true }), { status: 201 });
const refused = (status: number) =>
  new Response(JSON.stringify({ error: { message: "Already there.", field: null } }), { status });

describe("what the server has not answered yet", () => {
  it("is sent at once where it answers", async () => {
    answers.push(ok());
    expect(await postOrKeep("/a", { id: "1" }, "A look")).toEqual({ fine: true });
    expect(outbox.get()).toEqual([]);
  });

  it("is kept with the time it happened, and in this device’s store", async () => {
    expect(await postOrKeep("/a", { id: "1" }, "A look")).toBe(SAVED);
    expect(outbox.get().map(({ what }) => what)).toEqual(["A look"]);
    expect(outbox.get()[0]?.body).toHaveProperty("at");
    expect(kept.get("kumpan.outbox")).toContain("A look");
  });

  it("is sent in order, with its own id, and stops at the first silence", async () => {
    await postOrKeep("/a", { id: "1" }, "A look");
    await postOrKeep("/b", { id: "2" }, "A test");
    asked.length = 0;
    answers.push(ok());
    await sendWaiting();
    expect(asked.map(({ body }) => body.id)).toEqual(["1", "2"]);
    expect(outbox.get().map(({ body }) => body.id)).toEqual(["2"]);
    answers.push(ok());
    await sendWaiting();
    expect(outbox.get()).toEqual([]);
    expect(kept.has("kumpan.outbox")).toBe(false);
  });

  it("is told, not lost, when the server will not have it", async () => {
    await postOrKeep("/a", { id: "1" }, "A tick");
    answers.push(refused(409));
    await sendWaiting();
    expect(outbox.get()[0]?.refused).toBe("Already there.");
    asked.length = 0;
    await sendWaiting();
    expect(asked).toEqual([]); // not asked again until a person decides
  });

  it("waits on while the server stumbles", async () => {
    await postOrKeep("/a", { id: "1" }, "A tick");
    answers.push(refused(503));
    await sendWaiting();
    expect(outbox.get()[0]?.refused).toBeNull();
  });

  it("throws what is refused at once, so that the form can say it", async () => {
    answers.push(refused(422));
    await expect(postOrKeep("/a", { id: "1" }, "A look")).rejects.toThrow("Already there.");
    expect(outbox.get()).toEqual([]);
  });
});
