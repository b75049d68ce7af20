import { describe, expect, it, vi } from "vitest";

vi.stubGlobal("window", { location: { origin: "http://kumpan" } });
const { take, Trouble } = await import("./client");

const reply = (status: number, error?: unknown, data?: unknown) =>
  Promise.resolve({ response: new Response(null, { status }), error, data });

/** The trouble that a reply becomes. */
async function troubleOf(answer: Promise<{ response: Response; error?: unknown; data?: unknown }>) {
  try {
    await take(answer);
  } catch (error) {
    if (error instanceof Trouble) return error;
  }
  throw new Error("there was no trouble");
}

describe("what the server answered", () => {
  it("is its data where it went well", async () => {
    await expect(take(reply(200, undefined, { ph: 7.4 }))).resolves.toEqual({ ph: 7.4 });
    await expect(take(reply(201, undefined, "id"))).resolves.toBe("id");
  });

  it("is the server's one sentence and the field at fault where it did not", async () => {
    const trouble = await troubleOf(reply(422, { error: { message: "Type a number.", field: "ph" } }));
    expect(trouble).toMatchObject({ message: "Type a number.", field: "ph", status: 422 });
  });

  it("has a sentence of its own where the server gave none", async () => {
    for (const error of [undefined, "<html>", { error: 7 }, { error: { field: 3 } }, null]) {
      const trouble = await troubleOf(reply(500, error));
      expect(trouble.message).toBe("The server could not answer. Try once more.");
      expect(trouble.field).toBeNull();
    }
  });

  it("says that nothing typed is lost where nobody answered", async () => {
    const trouble = await troubleOf(Promise.reject(new TypeError("no network")));
    expect(trouble.status).toBe(0);
    expect(trouble.message).toContain("What you typed is kept here");
  });
});
