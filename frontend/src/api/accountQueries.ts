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

export const guestLinksQuery = () =>
  queryOptions({ queryKey: ["guest-links"], queryFn: () => take(client.GET("/api/v1/guest-links")) });
