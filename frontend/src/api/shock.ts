import { queryOptions } from "@tanstack/react-query";
import { client, take } from "./client";
import type { components } from "./schema";

export type ShockChoice = components["schemas"]["ShockChoice"];

/** What stands at a pool to shock it with. */
export const shockProductsQuery = (pool_id: string) =>
  queryOptions({
    queryKey: ["pool", pool_id, "shock-products"],
    queryFn: () =>
      take(client.GET("/api/v1/pools/{pool_id}/shock-products", { params: { path: { pool_id } } })),
  });
