import { queryOptions, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { notify } from "../components/notice";
import { personId } from "../lib/person";
import { client, take } from "./client";
import { takeBack } from "./entries";
import { postOrKeep, SAVED } from "./outbox";
import type { components } from "./schema";

export type Visit = components["schemas"]["VisitGoing"];
export type VisitLine = components["schemas"]["VisitLine"];
export type VisitKind = components["schemas"]["VisitKind"];
export type VisitGroup = components["schemas"]["Group"];

/** The visit that goes on, or how one of a kind would be. */
export const visitQuery = (pool_id: string, kind: VisitKind | null) =>
  queryOptions({
    queryKey: ["pool", pool_id, "visit", kind],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/visit", {
          params: { path: { pool_id }, query: kind === null ? {} : { kind } },
        }),
      ),
  });

const KEPT = "Kept on this device; it is sent when the server answers.";

/** Begin, tick, leave out, end; each waits on the device without a server. `waiting`: ticked, not sent yet. */
export function useVisit(poolId: string) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  const [waiting, setWaiting] = useState<readonly string[]>([]);
  const at = { path: { pool_id: poolId } };

  async function tell(
    send: (stamp: { id: string; person_id: string | null }) => Promise<unknown>,
    keys: readonly string[],
    said: string | null,
  ): Promise<boolean> {
    setBusy(true);
    try {
      const answer = await send({ id: crypto.randomUUID(), person_id: personId() });
      if (answer === SAVED) {
        setWaiting((others) => [...others, ...keys]);
        notify(KEPT);
      } else {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        const ids = Array.isArray(answer) ? answer.map(String) : [];
        if (said !== null) notify(said, ids.length > 0 ? () => void undo(ids) : undefined);
      }
      return true;
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
      return false;
    } finally {
      setBusy(false);
    }
  }

  async function undo(ids: readonly string[]) {
    try {
      for (const id of ids) await takeBack(id, "undone on the visit");
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  return {
    busy,
    waiting,
    begin: (kind: VisitKind) =>
      tell(
        (stamp) => postOrKeep("/api/v1/pools/{pool_id}/visit", at, { ...stamp, kind }, "A visit"),
        [],
        null,
      ),
    usual: (keys: readonly string[]) =>
      tell(
        (stamp) =>
          postOrKeep("/api/v1/pools/{pool_id}/visit/usual", at, { ...stamp, keys: [...keys] }, "As usual"),
        keys,
        "As usual: noted.",
      ),
    leaveOut: (line: VisitLine, reason: string) =>
      tell(
        (stamp) =>
          postOrKeep(
            "/api/v1/pools/{pool_id}/care/put-off",
            at,
            { ...stamp, task: line.key, until: null, reason },
            line.title,
          ),
        [line.key],
        `${line.title}: left out this time.`,
      ),
    end: (note: string) =>
      tell(
        (stamp) =>
          postOrKeep(
            "/api/v1/pools/{pool_id}/visits",
            at,
            { ...stamp, note, needs_return: false, trade: "", internal_note: "" },
            "End of the visit",
          ),
        [],
        "The visit is in the log.",
      ),
  };
}
