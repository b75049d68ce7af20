import { queryOptions, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { notify } from "../components/notice";
import { personId } from "../lib/person";
import { useGoing } from "../lib/useGoing";
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

/** What is begun and ended, beside its lines. */
export const WHOLE = "visit";
/** A line on its way out stays as it is until it is taken: its reason is kept. */
export const leavingOut = (key: string) => `without ${key}`;
const KEPT = "Kept on this device; it is sent when the server answers.";

/** Begin, tick, leave out, end; each waits on the device without a server. `waiting`: to be sent later. */
export function useVisit(poolId: string) {
  const queries = useQueryClient();
  const { goes, during } = useGoing();
  const [waiting, setWaiting] = useState<readonly string[]>([]);
  const at = { path: { pool_id: poolId } };

  const tell = (
    send: (stamp: { id: string; person_id: string | null }) => Promise<unknown>,
    keys: readonly string[],
    said: string | null,
    going = keys,
  ): Promise<boolean> => during(going, () => told(send, keys, said));

  async function told(
    send: (stamp: { id: string; person_id: string | null }) => Promise<unknown>,
    keys: readonly string[],
    said: string | null,
  ): Promise<boolean> {
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
    /** A line's key, or the whole visit's. */
    goes,
    waiting,
    /** Ticked here, whether the server knows it or not yet. */
    isTicked: (key: string) => goes(key) || waiting.includes(key),
    begin: (kind: VisitKind) =>
      tell(
        (stamp) => postOrKeep("/api/v1/pools/{pool_id}/visit", at, { ...stamp, kind }, "A visit"),
        [WHOLE],
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
        [leavingOut(line.key)],
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
        [WHOLE],
        "The visit is in the log.",
      ),
  };
}
