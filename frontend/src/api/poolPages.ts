import { infiniteQueryOptions, keepPreviousData } from "@tanstack/react-query";
import { client, take } from "./client";
import type { components } from "./schema";

export type PoolSort = "attention" | "name" | "tested";
export type Shown = components["schemas"]["Shown"];

/** A list page after page: what asks for something first, by name, or longest untested first. */
export const poolPagesQuery = (find: string, sort: PoolSort, show: Shown = "all") =>
  infiniteQueryOptions({
    queryKey: ["pools", sort, show, find],
    queryFn: ({ pageParam }) => {
      const query = {
        sort,
        limit: 50,
        ...(show === "all" ? {} : { show }),
        ...(find === "" ? {} : { query: find }),
        ...(pageParam === null ? {} : { cursor: pageParam }),
      };
      return take(client.GET("/api/v1/pools", { params: { query } }));
    },
    initialPageParam: null as string | null,
    getNextPageParam: ({ cursor }) => cursor,
    placeholderData: keepPreviousData,
  });
