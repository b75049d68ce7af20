import { useState } from "react";
import type { PracticeState } from "../../api/queries";
import type { PracticeMove } from "../../api/types";
import { keep, readKept } from "../../lib/store";

const KEY = "kumpan.practice";

/** The game that was left, if this device kept it. */
function kept(): PracticeState | null {
  try {
    const found: unknown = JSON.parse(readKept(KEY) ?? "null");
    return isState(found) ? found : null;
  } catch {
    return null;
  }
}

function isState(found: unknown): found is PracticeState {
  return (
    typeof found === "object" &&
    found !== null &&
    "scenario" in found &&
    typeof found.scenario === "string" &&
    "seed" in found &&
    typeof found.seed === "number" &&
    "moves" in found &&
    Array.isArray(found.moves) &&
    "finished" in found &&
    typeof found.finished === "boolean"
  );
}

/** A game is its moves; they stay on this device, so that a reload loses nothing. */
export function usePractice() {
  const [state, setState] = useState<PracticeState | null>(kept);
  const set = (next: PracticeState | null) => {
    setState(next);
    keep(KEY, next === null ? null : JSON.stringify(next));
  };
  return {
    state,
    begin: (scenario: string) =>
      set({ scenario, seed: 1 + Math.floor(Math.random() * 999_999), moves: [], finished: false }),
    again: () => state && set({ ...state, moves: [], finished: false }),
    move: (move: Partial<PracticeMove> & Pick<PracticeMove, "kind">) =>
      state &&
      set({
        ...state,
        moves: [...state.moves, { product_id: "", amount: "", share: 0, percent: 0, ...move }],
      }),
    takeBack: () => state && set({ ...state, moves: state.moves.slice(0, -1), finished: false }),
    finish: () => state && set({ ...state, finished: true }),
    leave: () => set(null),
  };
}
