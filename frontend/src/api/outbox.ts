import type {
  OperationRequestBodyContent,
  PathsWithMethod,
  Readable,
  SuccessResponseJSON,
  Writable,
} from "openapi-typescript-helpers";
import { client, Trouble, take } from "./client";
import type { paths } from "./schema";
import { dropWaiting, readWaiting, type Waiting, writeWaiting } from "./waitingStore";

type Posts = PathsWithMethod<paths, "post">;
type Post<P extends Posts> = paths[P]["post"];
/** Path and query of one of the API's posts, its body, and its answer: all as the generated client has them. */
export type PostParams<P extends Posts> =
  Post<P> extends { parameters: infer Params }
    ? Pick<Params, Extract<keyof Params, "path" | "query">>
    : never;
export type PostBody<P extends Posts> = Writable<OperationRequestBodyContent<Post<P>>>;
export type PostAnswer<P extends Posts> = Readable<
  SuccessResponseJSON<Post<P> & Record<string | number, unknown>>
>;

const AGAIN_MS = 10_000;
// No answer, signed out meanwhile, or too often: it is sent again later and nothing is lost.
const LATER: readonly number[] = [0, 401, 429];
/** Nobody took it: no answer, or one that says that the database is gone. */
const UNSENT: readonly number[] = [0, 503];
// A fault of the server may pass; one that comes each time would hold up all that waits behind it.
const MOST_FAULTS = 3;
const faults = new Map<string, number>();

let waiting: readonly Waiting[] = [];
let onSent: () => void = () => undefined;
const listeners = new Set<() => void>();

export const SAVED = Symbol("kept on this device");

export const outbox = {
  get: () => waiting,
  subscribe: (listener: () => void) => {
    listeners.add(listener);
    return () => listeners.delete(listener);
  },
  discard: (id: string): Promise<void> => {
    show(waiting.filter((one) => one.body.id !== id));
    return dropWaiting(id).then(() => tabs?.postMessage("changed"));
  },
};

/** What was not taken is sent once more, in its place. */
export async function sendAgain(id: string): Promise<void> {
  const one = waiting.find(({ body }) => body.id === id);
  if (!one) return;
  faults.delete(id);
  await put({ ...one, refused: null });
  await sendWaiting();
}

/** On their way for the first time: on this device already, and not told to wait before they have to. */
const going = new Set<string>();

/**
 * Post, or keep it on this device when the server does not answer; what is refused at once is thrown.
 * It is kept before it is sent: an app that is swept away before the answer has lost nothing, and sends it again.
 */
export async function postOrKeep<P extends Posts>(
  path: P,
  params: PostParams<P>,
  body: PostBody<P> & { id: string; at?: string | null },
  what: string,
): Promise<PostAnswer<P> | typeof SAVED> {
  const timed = { ...body, at: body.at ?? new Date().toISOString() };
  const one: Waiting = { path, params, body: timed, what, refused: null };
  going.add(body.id);
  await writeWaiting(one);
  try {
    const answer = (await post(path, params, body)) as PostAnswer<P>;
    await arrived(body.id);
    return answer;
  } catch (error) {
    if (!(error instanceof Trouble) || !UNSENT.includes(error.status)) {
      await arrived(body.id);
      throw error;
    }
    going.delete(body.id);
    await put(one);
    return SAVED;
  }
}

/** The server has answered: nothing of it is left here, in no tab. */
async function arrived(id: string): Promise<void> {
  await dropWaiting(id);
  going.delete(id);
  tabs?.postMessage("changed");
}

// What waits is of many kinds at once; each was checked against the client's types when it was told.
const anyPost = client.POST as unknown as (
  path: string,
  init: { params: object; body: object },
) => Promise<{ data?: unknown; error?: unknown; response: Response }>;

function post(path: string, params: object, body: object): Promise<unknown> {
  return take(anyPost(path, { params, body }));
}

/** Send what waits, in order; stop at the first that gets no answer. */
export async function sendWaiting(): Promise<void> {
  for (const one of waiting.filter(({ refused }) => refused === null)) {
    try {
      await post(one.path, one.params, one.body);
      await outbox.discard(one.body.id);
      onSent();
    } catch (error) {
      if (!(error instanceof Trouble) || isForLater(error.status, one.body.id)) return;
      const refused = error.message;
      await put({ ...one, refused });
    }
  }
}

function isForLater(status: number, id: string): boolean {
  if (LATER.includes(status) || status > 500) return true;
  if (status < 500) return false;
  faults.set(id, (faults.get(id) ?? 0) + 1);
  return (faults.get(id) ?? 0) < MOST_FAULTS;
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

async function put(one: Waiting): Promise<void> {
  await ready; // what is being read must not come over it
  const others = waiting.filter(({ body }) => body.id !== one.body.id);
  const known = waiting.length > others.length;
  show(known ? waiting.map((other) => (other.body.id === one.body.id ? one : other)) : [...others, one]);
  await writeWaiting(one);
  tabs?.postMessage("changed");
}

async function reread(): Promise<void> {
  const found = await readWaiting();
  if (found !== null) show(found.filter(({ body }) => !going.has(body.id)));
}

function show(next: readonly Waiting[]): void {
  waiting = next;
  for (const listener of listeners) listener();
}

// Other tabs keep and send as well: what they changed is read anew.
const tabs = "BroadcastChannel" in globalThis ? new BroadcastChannel("kumpan.outbox") : null;
if (tabs) tabs.onmessage = () => void reread();

/** What is kept on this device is known. */
export const ready: Promise<void> = reread();
