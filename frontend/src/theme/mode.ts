import { createStore } from "../lib/store";

export type Mode = "paper" | "sun" | "dusk";
export const MODES: readonly Mode[] = ["paper", "sun", "dusk"];

export const modeStore = createStore<Mode>("kumpan.mode", "paper", (text) =>
  MODES.find((mode) => mode === text),
);

export function applyMode(mode: Mode): void {
  document.documentElement.dataset.mode = mode;
}

/** What each light is called. */
export const MODE_NAMES: Record<Mode, string> = { paper: "Daylight", sun: "Bright sun", dusk: "Dusk" };
