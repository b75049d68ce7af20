import { useQueryClient } from "@tanstack/react-query";
import { notify } from "../components/notice";
import { personId } from "../lib/person";
import { useGoing } from "../lib/useGoing";
import { Trouble } from "./client";
import { takeBack } from "./entries";
import { postOrKeep, SAVED } from "./outbox";
import type { DueItem, NotedEvent } from "./types";

export const PRESSURE = "pressure";
export const LOOK = "look";

/** What can be done with an item of the due list; each can be undone, and waits on the device without a server. */
export function useMaintenance(poolId: string) {
  const queries = useQueryClient();
  const { goes, during } = useGoing();
  const at = { path: { pool_id: poolId } };

  /** `besideField`: what cannot be read is thrown to the form, which tells it there, and not in the bar. */
  const tell = (
    key: string,
    send: (stamp: { id: string; person_id: string | null }) => Promise<unknown>,
    said: string,
    besideField = false,
  ): Promise<boolean> => during([key], () => told(send, said, besideField));

  async function told(
    send: (stamp: { id: string; person_id: string | null }) => Promise<unknown>,
    said: string,
    besideField: boolean,
  ): Promise<boolean> {
    try {
      const id = crypto.randomUUID();
      if ((await send({ id, person_id: personId() })) === SAVED)
        notify("Kept on this device; it is sent when the server answers.");
      else {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        notify(said, () => void undo(id));
      }
      return true;
    } catch (error) {
      if (besideField && error instanceof Trouble && error.field !== null) throw error;
      notify(error instanceof Error ? error.message : String(error));
      return false;
    }
  }

  const putOff = (item: DueItem, until: string | null, reason: string, said: string) =>
    tell(
      item.task,
      (stamp) =>
        postOrKeep(
          "/api/v1/pools/{pool_id}/care/put-off",
          at,
          { ...stamp, task: item.task, until, reason },
          item.title,
        ),
      said,
    );

  async function undo(entry_id: string) {
    try {
      await takeBack(entry_id, "undone");
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  return {
    /** A task, an event, or one of `PRESSURE` and `LOOK`. */
    goes,
    done: (item: DueItem) =>
      tell(
        item.task,
        (stamp) =>
          postOrKeep(
            "/api/v1/pools/{pool_id}/care/done",
            at,
            { ...stamp, task: item.task, note: "" },
            item.title,
          ),
        `${item.title}: done.`,
      ),
    putOff: (item: DueItem, until: string) => putOff(item, until, "", `${item.title}: put off.`),
    leaveOut: (item: DueItem, reason: string) =>
      putOff(item, null, reason, `${item.title}: left out this time.`),
    interval: (task: string, days: string | null, off = false) =>
      tell(
        task,
        (stamp) =>
          postOrKeep(
            "/api/v1/pools/{pool_id}/care/interval",
            at,
            { ...stamp, task, days, off },
            "An interval",
          ),
        off ? "Off the list." : "The interval is set.",
      ),
    event: (kind: NotedEvent, words: string) =>
      tell(
        kind,
        (stamp) => postOrKeep("/api/v1/pools/{pool_id}/events", at, { ...stamp, kind, note: "" }, words),
        `${words}: noted.`,
      ),
    pressure: (pressure: string, metric: boolean) =>
      tell(
        PRESSURE,
        (stamp) =>
          postOrKeep(
            "/api/v1/pools/{pool_id}/pressures",
            { ...at, query: { metric } },
            { ...stamp, pressure },
            "Filter pressure",
          ),
        "Pressure noted.",
        true,
      ),
    look: () =>
      tell(
        LOOK,
        (stamp) =>
          postOrKeep(
            "/api/v1/pools/{pool_id}/looks",
            at,
            { ...stamp, clarity: "clear", level: "normal", odd: [], note: "" },
            "A look",
          ),
        "Looked: clear, level right.",
      ),
  };
}
