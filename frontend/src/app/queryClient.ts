import { QueryClient } from "@tanstack/react-query";
import { Trouble } from "../api/client";

/** How all screens ask the server. */
export function newQueryClient(): QueryClient {
  const client = new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        networkMode: "always", // without a network the worker answers with what was known
        retry: (count, error) =>
          count < 2 && !(error instanceof Trouble && error.status >= 400 && error.status < 500),
      },
    },
  });
  // What was changed while nobody looked at it is forgotten: the next screen would show the sheet or the answer of
  // before as that of now, for as long as the server takes.
  const answers = client.getQueryCache();
  answers.subscribe((event) => {
    const changed = event.type === "updated" && event.action.type === "invalidate";
    if (changed && event.query.getObserversCount() === 0) answers.remove(event.query);
  });
  return client;
}
