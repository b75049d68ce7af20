import type { QueryClient } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import { authQuery } from "./accountQueries";
import { assessmentQuery, boardQuery, outlookQuery, poolQuery, todayQuery } from "./queries";

/** What the first page will ask, asked while its own script is still on the way. */
export function askEarly(queries: QueryClient, pathname: string, units: Units): void {
  void queries.prefetchQuery(authQuery());
  const id = pathname.match(/^\/pools\/([0-9a-f-]{36})$/)?.[1];
  if (id === undefined) return;
  void queries.prefetchQuery(poolQuery(id));
  void queries.prefetchQuery(boardQuery(id));
  void queries.prefetchQuery(outlookQuery(id, units));
  void queries.prefetchQuery(todayQuery(id));
  void queries.prefetchQuery(assessmentQuery(id));
}
