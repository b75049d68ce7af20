import type { QueryClient } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import {
  boardQuery,
  choicesQuery,
  lastValuesQuery,
  planQuery,
  poolQuery,
  todayQuery,
  treatmentQuery,
} from "./queries";

const AT_ONCE = 3;

/** Ask for what each stop of a round needs, so that this device knows it where there is no signal. */
export async function fetchForTheRound(
  queries: QueryClient,
  stops: readonly string[],
  units: Units,
): Promise<void> {
  await queries.prefetchQuery(choicesQuery());
  const waiting = [...stops];
  async function next(): Promise<void> {
    const id = waiting.shift();
    if (id === undefined) return;
    await Promise.all([
      queries.prefetchQuery(poolQuery(id)),
      queries.prefetchQuery(boardQuery(id)),
      queries.prefetchQuery(todayQuery(id)),
      queries.prefetchQuery(treatmentQuery(id, units)),
      queries.prefetchQuery(lastValuesQuery(id, units)),
      queries.prefetchQuery(planQuery(id)),
    ]);
    return next();
  }
  await Promise.all(Array.from({ length: AT_ONCE }, next));
}
