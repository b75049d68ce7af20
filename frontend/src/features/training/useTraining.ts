import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { gameQuery, type TrainingState } from "../../api/queries";
import type { TrainingMove } from "../../api/types";
import { keep, readSaved } from "../../lib/store";
import type { Units } from "../../lib/units";

const KEY = "kumpan.practice";

/** The game that was left, if this device kept it. */
function kept(): TrainingState | null {
  try {
    const found: unknown = JSON.parse(readSaved(KEY) ?? "null");
    return isState(found) ? found : null;
  } catch {
    return null;
  }
}

function isState(found: unknown): found is TrainingState {
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
export function useTraining(units: Units) {
  const queries = useQueryClient();
  const [state, setState] = useState<TrainingState | null>(kept);
  const [busy, setBusy] = useState(false);
  const set = (next: TrainingState | null) => {
    setState(next);
    keep(KEY, next === null ? null : JSON.stringify(next));
  };
  /** A move counts once the server took it; else what is wrong with it, in words. */
  async function move(made: Partial<TrainingMove> & Pick<TrainingMove, "kind">): Promise<string | null> {
    if (state === null) return null;
    const full = { product_id: "", amount: "", share: 0, percent: 0, ...made };
    const next = { ...state, moves: [...state.moves, full] };
    setBusy(true);
    try {
      await queries.fetchQuery(gameQuery(next, units));
      set(next);
      return null;
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    } finally {
      setBusy(false);
    }
  }
  return {
    state,
    busy,
    move,
    begin: (scenario: string) =>
      set({ scenario, seed: 1 + Math.floor(Math.random() * 999_999), moves: [], finished: false }),
    again: () => state && set({ ...state, moves: [], finished: false }),
    takeBack: () => state && set({ ...state, moves: state.moves.slice(0, -1), finished: false }),
    finish: () => state && set({ ...state, finished: true }),
    leave: () => set(null),
  };
}
