import type { QueryClient } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import { authQuery } from "./accountQueries";
import { assessmentQuery, boardQuery, outlookQuery, poolQuery, todayQuery } from "./queries";

/**
 * What the first page will ask, asked while its own script is still on the way; settles once what stands at its head
 * is answered.
 */
export async function askEarly(queries: QueryClient, pathname: string, units: Units): Promise<void> {
  const head = [queries.prefetchQuery(authQuery())];
  const id = pathname.match(/^\/pools\/([0-9a-f-]{36})$/)?.[1];
  if (id === undefined) return void (await Promise.all(head));
  head.push(queries.prefetchQuery(poolQuery(id)), queries.prefetchQuery(outlookQuery(id, units)));
  await Promise.all(head);
  // Not beside the head: their answers would be read before it is drawn. The server finds them while it is.
  void queries.prefetchQuery(boardQuery(id));
  void queries.prefetchQuery(todayQuery(id));
  void queries.prefetchQuery(assessmentQuery(id));
}
