import { useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { takeBack } from "../../api/entries";
import { postOrKeep, SAVED } from "../../api/outbox";
import type { ListItem, SavedList } from "../../api/types";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";
import type { Units } from "../../lib/units";
import { useGoing } from "../../lib/useGoing";

/** A list is changed whole, and so is the climate: one change at a time; ticks go by their item. */
export const LIST = "list";
export const CLIMATE = "climate";

/** Keep, change, drop and tick lists; every step can be taken back, and a tick waits on the device without a server. */
export function useSeasonLists(poolId: string, units: Units) {
  const queries = useQueryClient();
  const { goes, during } = useGoing();

  const run = (
    key: string,
    work: (id: string) => Promise<unknown>,
    said: string,
    undoable = true,
  ): Promise<boolean> => during([key], () => told(work, said, undoable));

  async function told(
    work: (id: string) => Promise<unknown>,
    said: string,
    undoable: boolean,
  ): Promise<boolean> {
    const id = crypto.randomUUID();
    try {
      const found = await work(id);
      if (found === SAVED) notify("Kept on this device; it is sent when the server answers.");
      else {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        if (undoable) notify(said, () => void undo(id));
        else notify(said);
      }
      return true;
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
      return false;
    }
  }

  const undo = (entry_id: string) =>
    run(entry_id, () => takeBack(entry_id, "undone on the list"), "Taken back.", false);

  const keep = (list: SavedList, said: string) =>
    run(
      LIST,
      (id) =>
        take(
          client.POST("/api/v1/pools/{pool_id}/season-lists", {
            params: { path: { pool_id: poolId }, query: { metric: units === "metric" } },
            body: {
              id,
              at: null,
              person_id: personId(),
              ...list,
              left_out: [...list.left_out],
              own: list.own.map((item) => ({ ...item })),
            },
          }),
        ),
      said,
    );

  const tick = (
    list_id: string,
    item: Pick<ListItem["item"], "key" | "title">,
    outcome: "done" | "skipped",
  ) =>
    run(
      item.key,
      (id) => {
        const at = new Date().toISOString();
        const told = { id, at, person_id: personId(), list_id, item: item.key, outcome, note: "" };
        return postOrKeep(
          "/api/v1/pools/{pool_id}/season-lists/ticks",
          { path: { pool_id: poolId } },
          told,
          item.title,
        );
      },
      outcome === "done" ? `${item.title}: done.` : `${item.title}: left out.`,
    );

  const setClimate = (monthly: string[]) =>
    run(
      CLIMATE,
      (id) =>
        take(
          client.POST("/api/v1/pools/{pool_id}/climate", {
            params: { path: { pool_id: poolId }, query: { metric: units === "metric" } },
            body: { id, at: null, person_id: personId(), monthly },
          }),
        ),
      "The water's climate is set.",
    );

  return { goes, keep, tick, undo, setClimate };
}
