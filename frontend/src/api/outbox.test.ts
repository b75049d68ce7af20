import "fake-indexeddb/auto";
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
const { readWaiting } = await import("./waitingStore");

/** The same program once more on the same device. */
async function anotherTab() {
  vi.resetModules();
  const again = await import("./outbox");
  await again.ready;
  return again;
}

/** A look, as the screens tell it. */
const told = (id: string, what: string) => tell(postOrKeep, id, what);
const tell = (through: typeof postOrKeep, id: string, what: string) =>
  through(
    "/api/v1/pools/{pool_id}/looks",
    { path: { pool_id: "p" } },
    { id, clarity: "clear", level: "normal", odd: [], note: "" },
    what,
  );
const answers: (Response | Error)[] = [];
const asked: { path: string; body: { id: string; at?: string } }[] = [];

beforeEach(() => {
  vi.stubGlobal("fetch", async (request: Request) => {
    asked.push({ path: new URL(request.url).pathname, body: await request.json() });
    const next = answers.shift() ?? new TypeError("no network");
    if (next instanceof Error) throw next;
    return next;
  });
});
afterEach(async () => {
  for (const one of [...outbox.get()]) await outbox.discard(one.body.id);
  answers.length = 0;
  asked.length = 0;
});

const ok = () => new Response(JSON.stringify({ fine: true }), { status: 201 });
const refused = (status: number) =>
  new Response(JSON.stringify({ error: { message: "Already there.", field: null } }), { status });

describe("what the server has not answered yet", () => {
  it("is sent at once where it answers", async () => {
    answers.push(ok());
    expect(await told("1", "A look")).toEqual({ fine: true });
    expect(outbox.get()).toEqual([]);
  });

  it("is kept with the time it happened, and in this device’s store", async () => {
    expect(await told("1", "A look")).toBe(SAVED);
    expect(outbox.get().map(({ what }) => what)).toEqual(["A look"]);
    expect(outbox.get()[0]?.body).toHaveProperty("at");
    expect(await readWaiting()).toMatchObject([{ what: "A look" }]);
  });

  it("waits while nobody is signed in, and goes on afterwards", async () => {
    await told("1", "A look");
    for (const status of [401, 429]) {
      answers.push(refused(status));
      await sendWaiting();
      expect(outbox.get()).toMatchObject([{ what: "A look", refused: null }]);
    }
    answers.push(ok());
    await sendWaiting();
    expect(outbox.get()).toEqual([]);
  });

  it("is sent in order, with its own id, and stops at the first silence", async () => {
    await told("1", "A look");
    await told("2", "A test");
    asked.length = 0;
    answers.push(ok());
    await sendWaiting();
    expect(asked.map(({ body }) => body.id)).toEqual(["1", "2"]);
    expect(outbox.get().map(({ body }) => body.id)).toEqual(["2"]);
    answers.push(ok());
    await sendWaiting();
    expect(outbox.get()).toEqual([]);
    expect(await readWaiting()).toEqual([]);
  });

  it("is told, not lost, when the server will not have it", async () => {
    await told("1", "A tick");
    answers.push(refused(409));
    await sendWaiting();
    expect(outbox.get()[0]?.refused).toBe("Already there.");
    asked.length = 0;
    await sendWaiting();
    expect(asked).toEqual([]); // not asked again until a person decides
  });

  it("holds up nothing behind it when the server fails at it each time", async () => {
    await told("1", "A tick");
    await told("2", "A look");
    for (let time = 1; time < 3; time++) {
      answers.push(refused(500));
      await sendWaiting();
      expect(outbox.get().map(({ refused }) => refused)).toEqual([null, null]);
    }
    answers.push(refused(500), ok());
    await sendWaiting();
    expect(outbox.get()).toMatchObject([{ what: "A tick", refused: "Already there." }]);
  });

  it("waits on while the server stumbles", async () => {
    await told("1", "A tick");
    answers.push(refused(503));
    await sendWaiting();
    expect(outbox.get()[0]?.refused).toBeNull();
  });

  it("goes where an earlier version meant it to: a whole path, without parts", async () => {
    kept.set(
      "kumpan.outbox",
      JSON.stringify([{ path: "/api/v1/pools/p/looks", body: { id: "7" }, what: "A look", refused: null }]),
    );
    const again = await anotherTab();
    answers.push(ok());
    await again.sendWaiting();
    expect(asked).toEqual([{ path: "/api/v1/pools/p/looks", body: { id: "7" } }]);
    expect(again.outbox.get()).toEqual([]);
    expect(kept.has("kumpan.outbox")).toBe(false);
  });

  it("is on this device while the answer is on its way, and sent by the app that is opened next", async () => {
    const first = await anotherTab();
    vi.stubGlobal("fetch", () => new Promise(() => undefined)); // no answer, and no end of waiting for it
    void tell(first.postOrKeep, "1", "A look");
    await vi.waitFor(async () => expect(await readWaiting()).toHaveLength(1));
    expect(first.outbox.get()).toEqual([]); // it is going, it does not wait yet

    const reopened = await anotherTab();
    expect(reopened.outbox.get()).toMatchObject([{ what: "A look", refused: null }]);
    vi.stubGlobal("fetch", async () => ok());
    await reopened.sendWaiting();
    expect(await readWaiting()).toEqual([]);
  });

  it("leaves nothing behind where it is refused at once", async () => {
    answers.push(refused(422));
    await expect(told("1", "A look")).rejects.toThrow("Already there.");
    expect(await readWaiting()).toEqual([]);
  });

  it("survives in two tabs that keep at the same time", async () => {
    const other = await anotherTab();
    await Promise.all([told("1", "A look"), tell(other.postOrKeep, "2", "A tick"), told("3", "A test")]);
    const third = await anotherTab();
    expect(
      third.outbox
        .get()
        .map(({ body }) => body.id)
        .sort(),
    ).toEqual(["1", "2", "3"]);
    for (const id of ["1", "2", "3"]) await third.outbox.discard(id);
  });

  it("passes over what is no entry of ours", async () => {
    kept.set("kumpan.outbox", JSON.stringify([null, 7, { path: 1 }, { path: "/x", body: {}, what: "w" }]));
    const again = await anotherTab();
    expect(again.outbox.get()).toEqual([]);
  });

  it("throws what is refused at once, so that the form can say it", async () => {
    answers.push(refused(422));
    await expect(told("1", "A look")).rejects.toThrow("Already there.");
    expect(outbox.get()).toEqual([]);
  });
});
