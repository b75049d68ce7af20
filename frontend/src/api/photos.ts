import { queryOptions } from "@tanstack/react-query";
import { client, take } from "./client";
import type { components } from "./schema";

export type PhotoLine = components["schemas"]["PhotoLine"];
export type PoolPhotos = components["schemas"]["PoolPhotos"];
export type PhotoOf = components["schemas"]["PhotoOf"];

/** The photos of a pool, the newest first. */
export const photosQuery = (pool_id: string) =>
  queryOptions({
    queryKey: ["pool", pool_id, "photos"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/photos", { params: { path: { pool_id } } })),
  });

export const photoAddress = (pool_id: string, sha256: string, small = false) =>
  `/api/v1/pools/${pool_id}/photos/${sha256}.jpg${small ? "?thumb=true" : ""}`;
