import { queryOptions } from "@tanstack/react-query";
import { client, take } from "./client";

const FEWEST_LETTERS = 2;

/** Towns that begin as typed, those of the time zone first; nothing is asked for less than two letters. */
export const townsQuery = (find: string, timeZone: string) =>
  queryOptions({
    queryKey: ["towns", find, timeZone],
    queryFn: () => take(client.GET("/api/v1/towns", { params: { query: { find, time_zone: timeZone } } })),
    enabled: find.length >= FEWEST_LETTERS,
    staleTime: Number.POSITIVE_INFINITY,
    placeholderData: (before) => before,
  });
