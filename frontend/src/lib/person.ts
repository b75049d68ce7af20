import { createStore } from "./store";

/** The id of who uses this device; empty until chosen. */
export const personStore = createStore<string>("kumpan.person", "", (text) =>
  text === "" ? undefined : text,
);

/** Who, for a request: null until chosen. */
export function personId(): string | null {
  return personStore.get() || null;
}
