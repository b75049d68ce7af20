import { queryOptions } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import { client, take } from "./client";
import type { components } from "./schema";

export type Weekly = components["schemas"]["WeeklyView"];

/** What this pool loses a week, in each product. */
export const weeklyQuery = (pool_id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", pool_id, "weekly", units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/weekly", {
          params: { path: { pool_id }, query: { metric: units === "metric" } },
        }),
      ),
  });
