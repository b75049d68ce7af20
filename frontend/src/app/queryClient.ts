import { QueryClient } from "@tanstack/react-query";
import { Trouble } from "../api/client";

/** How all screens ask the server. */
export function newQueryClient(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        networkMode: "always", // without a network the worker answers with what was known
        retry: (count, error) =>
          count < 2 && !(error instanceof Trouble && error.status >= 400 && error.status < 500),
      },
    },
  });
}
