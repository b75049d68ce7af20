import { beforeEach, describe, expect, it, vi } from "vitest";

const kept = new Map<string, string>();
let blocked = false;
const guarded = <T>(value: () => T): T => {
  if (blocked) throw new Error("storage is blocked");
  return value();
};
vi.stubGlobal("localStorage", {
  getItem: (key: string) => guarded(() => kept.get(key) ?? null),
  setItem: (key: string, value: string) => guarded(() => kept.set(key, value)),
  removeItem: (key: string) => guarded(() => kept.delete(key)),
});
const { createStore, plainStore, keep, readSaved } = await import("./store");

type Light = "paper" | "sun";
const light = () =>
  createStore<Light>("light", "paper", (text) => (text === "paper" || text === "sun" ? text : undefined));

beforeEach(() => {
  kept.clear();
  blocked = false;
});

describe("a choice kept on this device", () => {
  it("begins as it was left, or as it usually is", () => {
    expect(light().get()).toBe("paper");
    kept.set("light", "sun");
    expect(light().get()).toBe("sun");
  });

  it("does not take what it cannot read", () => {
    kept.set("light", "neon");
    expect(light().get()).toBe("paper");
  });

  it("is kept and told to who listens, until they stop", () => {
    const store = light();
    const heard: Light[] = [];
    const stop = store.subscribe(() => heard.push(store.get()));
    store.set("sun");
    stop();
    store.set("paper");
    expect(heard).toEqual(["sun"]);
    expect(kept.get("light")).toBe("paper");
  });

  it("works on where a private window lets nothing be kept", () => {
    blocked = true;
    const store = light();
    store.set("sun");
    expect(store.get()).toBe("sun");
    expect(readSaved("light")).toBeNull();
    expect(() => keep("light", null)).not.toThrow();
  });
});

describe("what is kept under a key", () => {
  it("is read back, and gone once it is taken away", () => {
    keep("draft", "half typed");
    expect(readSaved("draft")).toBe("half typed");
    keep("draft", null);
    expect(readSaved("draft")).toBeNull();
  });
});

it("tells who watches of another value, and of the same one nothing", () => {
  const line = plainStore("empty");
  const heard: string[] = [];
  const leave = line.subscribe(() => heard.push(line.get()));
  line.set("typed");
  line.set("typed");
  leave();
  line.set("reading");
  expect(heard).toEqual(["typed"]);
  expect(line.get()).toBe("reading");
});
