import { useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { takeBack } from "../../api/entries";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";

const stamp = () => ({ id: crypto.randomUUID(), at: null, person_id: personId() });

export interface Move {
  pool_id: string;
  from_day: string;
  to_day: string;
  technician_id: string;
}

/** What the office changes in the weeks ahead; each change is an entry that can be taken back. */
export function useFirm() {
  const queries = useQueryClient();

  async function refresh() {
    await queries.invalidateQueries({ queryKey: ["firm"] });
    await queries.invalidateQueries({ queryKey: ["round"] });
  }

  async function undo(entry: string) {
    await takeBack(entry, "undone in the plan");
    await refresh();
  }

  /** Say what was done, with its undo; a refusal is thrown to whoever asked. */
  async function tell(body: { id: string }, sent: Promise<unknown>, said: string) {
    await sent;
    notify(said, () => void undo(body.id));
    await refresh();
  }

  return {
    undo,
    move: async (what: Move, said: string) => {
      const body = { ...stamp(), ...what };
      try {
        await tell(body, take(client.POST("/api/v1/rounds/moves", { body })), said);
      } catch (error) {
        notify(error instanceof Error ? error.message : String(error));
      }
    },
    away: (what: { technician_id: string; first: string; last: string; note: string }) => {
      const body = { ...stamp(), ...what };
      return tell(body, take(client.POST("/api/v1/rounds/absences", { body })), "Noted who is away.");
    },
    once: (what: {
      pool_id: string;
      day: string;
      technician_id: string | null;
      minutes: number;
      what: string;
    }) => {
      const body = { ...stamp(), ...what };
      return tell(body, take(client.POST("/api/v1/rounds/once", { body })), "Planned.");
    },
    takeFair: async () => {
      await take(client.POST("/api/v1/rounds/fair", { body: stamp() }));
      notify("The rounds are set anew, for every week from now on.");
      await refresh();
    },
  };
}
