import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { notify } from "../components/notice";
import { personId } from "../lib/person";
import { Trouble } from "./client";
import { takeBack } from "./entries";
import { postOrKeep, SAVED } from "./outbox";
import type { DueItem } from "./types";

/** What can be done with an item of the due list; each can be undone, and waits on the device without a server. */
export function useMaintenance(poolId: string) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);

  /** `besideField`: what cannot be read is told there, by `problem`, and not in the bar. */
  async function tell(
    path: string,
    body: object,
    what: string,
    said: string,
    besideField = false,
  ): Promise<boolean> {
    setBusy(true);
    setProblem(null);
    try {
      const id = crypto.randomUUID();
      const told = { id, person_id: personId(), ...body };
      const kept = await postOrKeep(`/api/v1/pools/${poolId}${path}`, told, what);
      if (kept === SAVED) notify("Kept on this device; it is sent when the server answers.");
      else {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        notify(said, () => void undo(id));
      }
      return true;
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error);
      if (besideField && error instanceof Trouble && error.field !== null) setProblem(words);
      else notify(words);
      return false;
    } finally {
      setBusy(false);
    }
  }

  async function undo(entry_id: string) {
    try {
      await takeBack(entry_id, "undone");
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  return {
    busy,
    problem,
    done: (item: DueItem) =>
      tell("/care/done", { task: item.task, note: "" }, item.title, `${item.title}: done.`),
    putOff: (item: DueItem, until: string) =>
      tell("/care/put-off", { task: item.task, until, reason: "" }, item.title, `${item.title}: put off.`),
    leaveOut: (item: DueItem, reason: string) =>
      tell(
        "/care/put-off",
        { task: item.task, until: null, reason },
        item.title,
        `${item.title}: left out this time.`,
      ),
    interval: (task: string, days: number | string | null, off = false) =>
      tell(
        "/care/interval",
        { task, days, off },
        "An interval",
        off ? "Off the list." : "The interval is set.",
      ),
    event: (kind: string, words: string) => tell("/events", { kind, note: "" }, words, `${words}: noted.`),
    pressure: (pressure: string, metric: boolean) =>
      tell(`/pressures?metric=${metric}`, { pressure }, "Filter pressure", "Pressure noted.", true),
    look: () =>
      tell(
        "/looks",
        { clarity: "clear", level: "normal", odd: [], note: "" },
        "A look",
        "Looked: clear, level right.",
      ),
  };
}
