import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { sheetQuery } from "../../api/queries";
import type { Sheet, SheetStep, ShockWay } from "../../api/types";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";
import type { Units } from "../../lib/units";

/** The sheet of one pool: start it, tick its steps, undo a tick. */
export function useSheet(poolId: string, units: Units) {
  const queries = useQueryClient();
  const query = useQuery(sheetQuery(poolId, units));
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const metric = units === "metric";

  async function run(work: () => Promise<Sheet | null>): Promise<boolean> {
    setBusy(true);
    setTrouble(null);
    try {
      const sheet = await work();
      if (sheet !== null && !sheet.finished) queries.setQueryData(sheetQuery(poolId, units).queryKey, sheet);
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      await queries.invalidateQueries({ queryKey: ["pools"] });
      return true;
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
      return false;
    } finally {
      setBusy(false);
    }
  }

  const start = (shock: ShockWay | null) =>
    run(() =>
      take(
        client.POST("/api/v1/pools/{pool_id}/sheets", {
          params: { path: { pool_id: poolId }, query: { metric } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), shock },
        }),
      ),
    );

  async function tick(step: SheetStep, outcome: "done" | "skipped", amount = ""): Promise<boolean> {
    const sheetId = query.data?.id;
    if (!sheetId) return false;
    const id = crypto.randomUUID();
    const kept = await run(() =>
      take(
        client.POST("/api/v1/pools/{pool_id}/sheets/{sheet_id}/ticks", {
          params: { path: { pool_id: poolId, sheet_id: sheetId }, query: { metric } },
          body: { id, at: null, person_id: personId(), step_number: step.number, outcome, amount, note: "" },
        }),
      ),
    );
    if (kept)
      notify(
        outcome === "done" ? `Noted: ${step.step.title}.` : `Left out: ${step.step.title}.`,
        () => void undo(id),
      );
    return kept;
  }

  const undo = (entryId: string) =>
    run(async () => {
      await take(
        client.POST("/api/v1/entries/{entry_id}/void", {
          params: { path: { entry_id: entryId } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), reason: "undone on the sheet" },
        }),
      );
      return null;
    });

  return { query, start, tick, undo, trouble, busy };
}
