import { useSyncExternalStore } from "react";

export interface Store<T> {
  get: () => T;
  set: (value: T) => void;
  subscribe: (listener: () => void) => () => void;
}

/** A value that only who watches it is drawn anew by; kept nowhere. */
export function plainStore<T>(initial: T): Store<T> {
  let value = initial;
  const listeners = new Set<() => void>();
  return {
    get: () => value,
    set: (next) => {
      if (Object.is(next, value)) return;
      value = next;
      for (const listener of listeners) listener();
    },
    subscribe: (listener) => {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
}

/** A choice kept on this device. Storage that is blocked or full only means it is not kept. */
export function createStore<T extends string>(
  key: string,
  initial: T,
  parse: (text: string) => T | undefined,
): Store<T> {
  const store = plainStore(parse(readSaved(key) ?? "") ?? initial);
  return {
    ...store,
    set: (next) => {
      keep(key, next);
      store.set(next);
    },
  };
}

export function useStore<T>(store: Store<T>): T {
  return useSyncExternalStore(store.subscribe, store.get);
}

export function readSaved(key: string): string | null {
  try {
    return localStorage.getItem(key);
  } catch {
    return null;
  }
}

export function keep(key: string, value: string | null): void {
  try {
    if (value === null) localStorage.removeItem(key);
    else localStorage.setItem(key, value);
  } catch {
    // Private windows may refuse; the page works on without.
  }
}
