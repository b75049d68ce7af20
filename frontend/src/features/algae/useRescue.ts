import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { takeBack } from "../../api/entries";
import type { RescueIn, RescueOutcome } from "../../api/types";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";

type Setting = Omit<RescueIn, "id" | "at" | "person_id">;

/** Begin, change and end a rescue; each can be undone. */
export function useRescue(poolId: string) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);

  const refresh = async () => {
    await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    await queries.invalidateQueries({ queryKey: ["pools"] });
  };

  async function run(work: (id: string) => Promise<unknown>, said: string): Promise<void> {
    setBusy(true);
    const id = crypto.randomUUID();
    try {
      await work(id);
      await refresh();
      notify(said, () => void undo(id));
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  }

  async function undo(entry_id: string) {
    try {
      await takeBack(entry_id, "undone on the rescue board");
      await refresh();
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  const path = { pool_id: poolId };
  const set = (setting: Setting, said: string) =>
    run((id) => {
      const body: RescueIn = { id, at: null, person_id: personId(), ...setting };
      return take(client.POST("/api/v1/pools/{pool_id}/rescue", { params: { path }, body }));
    }, said);
  const end = (outcome: RescueOutcome, said: string) =>
    run(
      (id) =>
        take(
          client.POST("/api/v1/pools/{pool_id}/rescue/end", {
            params: { path },
            body: { id, at: null, person_id: personId(), outcome, note: "" },
          }),
        ),
      said,
    );
  return { busy, set, end };
}
