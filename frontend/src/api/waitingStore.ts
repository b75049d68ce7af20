import { type DBSchema, type IDBPDatabase, openDB } from "idb";
import { keep, readSaved } from "../lib/store";

/** Something told to the journal that the server has not answered yet. Its id makes a resend harmless. */
export interface Waiting {
  /** The API's template; a whole path where an earlier version kept it. */
  path: string;
  params: object;
  body: { id: string };
  what: string;
  /** Why the server would not have it; null while it has not answered at all. */
  refused: string | null;
}

interface Kept extends DBSchema {
  outbox: { key: number; value: Waiting; indexes: { id: string } };
}

/** Where versions before kept all of it in one text, which two tabs took from each other. */
const BEFORE = "kumpan.outbox";
let opened: Promise<IDBPDatabase<Kept>> | null = null;

function database(): Promise<IDBPDatabase<Kept>> {
  opened ??= openDB<Kept>("kumpan", 1, {
    upgrade(made) {
      made.createObjectStore("outbox", { autoIncrement: true }).createIndex("id", "body.id");
    },
  });
  return opened;
}

/** One record a write: what two tabs keep at once both stays. In order; null where the browser keeps nothing. */
export async function readWaiting(): Promise<readonly Waiting[] | null> {
  try {
    const kept = await database();
    for (const one of parsed(readSaved(BEFORE))) await kept.add("outbox", one);
    keep(BEFORE, null);
    return (await kept.getAll("outbox")).filter(isWaiting);
  } catch {
    return null;
  }
}

/** Add one at the end, or change the one with its id. A browser that keeps nothing keeps it in this page. */
export async function writeWaiting(one: Waiting): Promise<void> {
  try {
    const store = (await database()).transaction("outbox", "readwrite").store;
    const key = await store.index("id").getKey(one.body.id);
    if (key === undefined) await store.add(one);
    else await store.put(one, key);
  } catch {
    // A private window: it lives as long as the page.
  }
}

export async function dropWaiting(id: string): Promise<void> {
  try {
    const store = (await database()).transaction("outbox", "readwrite").store;
    for (const key of await store.index("id").getAllKeys(id)) await store.delete(key);
  } catch {
    // As above.
  }
}

function parsed(text: string | null): Waiting[] {
  try {
    const found: unknown = JSON.parse(text ?? "[]");
    return Array.isArray(found) ? found.map((one) => ({ params: {}, ...one })).filter(isWaiting) : [];
  } catch {
    return [];
  }
}

/** Only what is whole is sent: a record that something else wrote is passed over. */
function isWaiting(one: unknown): one is Waiting {
  if (typeof one !== "object" || one === null) return false;
  const { path, params, body, what, refused } = one as Record<string, unknown>;
  const id = typeof body === "object" && body !== null ? (body as Record<string, unknown>).id : undefined;
  const texts = [path, what, id].every((text) => typeof text === "string");
  return texts && typeof params === "object" && (refused === null || typeof refused === "string");
}
