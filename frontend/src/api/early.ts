import type { QueryClient } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import { authQuery } from "./accountQueries";
import { assessmentQuery, boardQuery, outlookQuery, poolQuery, todayQuery } from "./queries";

/** What the first page will ask, asked while its own script is still on the way; settles once all is answered. */
export async function askEarly(queries: QueryClient, pathname: string, units: Units): Promise<void> {
  const asked = [queries.prefetchQuery(authQuery())];
  const id = pathname.match(/^\/pools\/([0-9a-f-]{36})$/)?.[1];
  if (id !== undefined)
    asked.push(
      queries.prefetchQuery(poolQuery(id)),
      queries.prefetchQuery(boardQuery(id)),
      queries.prefetchQuery(outlookQuery(id, units)),
      queries.prefetchQuery(todayQuery(id)),
      queries.prefetchQuery(assessmentQuery(id)),
    );
  await Promise.all(asked);
}
