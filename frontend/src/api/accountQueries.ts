import { queryOptions } from "@tanstack/react-query";
import { client, take } from "./client";

/** Who is signed in, and what the office sees of the people. */
export const authQuery = () =>
  queryOptions({
    queryKey: ["auth"],
    queryFn: () => take(client.GET("/api/v1/auth/state")),
    staleTime: 60_000,
  });

export const accountQuery = () =>
  queryOptions({ queryKey: ["me"], queryFn: () => take(client.GET("/api/v1/me")) });

export const tokensQuery = () =>
  queryOptions({ queryKey: ["me", "tokens"], queryFn: () => take(client.GET("/api/v1/me/tokens")) });

export const membersQuery = () =>
  queryOptions({ queryKey: ["members"], queryFn: () => take(client.GET("/api/v1/members")) });

export const auditQuery = () =>
  queryOptions({ queryKey: ["audit"], queryFn: () => take(client.GET("/api/v1/audit")) });

export const linksQuery = () =>
  queryOptions({ queryKey: ["links"], queryFn: () => take(client.GET("/api/v1/links")) });

export const sharingQuery = (pool_id: string) =>
  queryOptions({
    queryKey: ["sharing", pool_id],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/shares", { params: { path: { pool_id } } })),
  });

export const archivedQuery = () =>
  queryOptions({ queryKey: ["archived"], queryFn: () => take(client.GET("/api/v1/archived-pools")) });

export const journalCopiesQuery = () =>
  queryOptions({ queryKey: ["journal-copies"], queryFn: () => take(client.GET("/api/v1/journal-copies")) });
