import { infiniteQueryOptions, keepPreviousData } from "@tanstack/react-query";
import { client, take } from "./client";

export type PoolSort = "attention" | "name" | "tested";

/** A list page after page: what asks for something first, by name, or longest untested first. */
export const poolPagesQuery = (find: string, sort: PoolSort) =>
  infiniteQueryOptions({
    queryKey: ["pools", sort, find],
    queryFn: ({ pageParam }) => {
      const query = {
        sort,
        limit: 50,
        ...(find === "" ? {} : { query: find }),
        ...(pageParam === null ? {} : { cursor: pageParam }),
      };
      return take(client.GET("/api/v1/pools", { params: { query } }));
    },
    initialPageParam: null as string | null,
    getNextPageParam: ({ cursor }) => cursor,
    placeholderData: keepPreviousData,
  });
