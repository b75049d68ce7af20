import { createStore } from "./store";

export interface ActiveStop {
  id: string;
  name: string;
}

/** The round that is being driven on this device, as JSON; empty when none is. */
export const activeRoundStore = createStore<string>("kumpan.round", "", (text) => text);

export function stopsOf(text: string): readonly ActiveStop[] {
  try {
    const value: unknown = JSON.parse(text || "[]");
    return Array.isArray(value) ? (value as ActiveStop[]) : [];
  } catch {
    return [];
  }
}

export function startRound(stops: readonly ActiveStop[]): void {
  activeRoundStore.set(JSON.stringify(stops));
}

export function endRound(): void {
  activeRoundStore.set("");
}

/** Whose round is shown: a technician's own; the office chooses. */
export const driverStore = createStore<string>("kumpan.driver", "", (text) =>
  text === "" ? undefined : text,
);
