import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { roundQuery } from "../../api/queries";
import { notify } from "../../components/notice";
import type { Units } from "../../lib/units";

/** One technician's round on a weekday: its stops, and the ways to change their order. */
export function useRound(person: string, weekday: number | null, units: Units) {
  const queries = useQueryClient();
  const query = useQuery({ ...roundQuery(person, weekday, units), enabled: person !== "" });
  const [busy, setBusy] = useState(false);

  async function run(work: () => Promise<unknown>): Promise<boolean> {
    setBusy(true);
    try {
      await work();
      await queries.invalidateQueries({ queryKey: ["round"] });
      return true;
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
      return false;
    } finally {
      setBusy(false);
    }
  }

  const stamp = () => ({ id: crypto.randomUUID(), at: null, person_id: person });

  const setStops = (day: number, stops: readonly string[]) =>
    run(() => take(client.POST("/api/v1/rounds", { body: { ...stamp(), weekday: day, stops: [...stops] } })));

  const count = (product_id: string, amount: string) =>
    run(() =>
      take(
        client.POST("/api/v1/truck", {
          params: { query: { metric: units === "metric" } },
          body: { ...stamp(), product_id, amount },
        }),
      ),
    );

  return { query, busy, setStops, count };
}
