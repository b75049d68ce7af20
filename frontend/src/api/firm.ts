import { queryOptions } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import { client, take } from "./client";
import type { components } from "./schema";

export type FirmView = components["schemas"]["FirmView"];
export type DayAhead = components["schemas"]["RoundDay"];
export type StopAhead = components["schemas"]["StopAhead"];
export type FairView = components["schemas"]["FairView"];

/** Who drives where, from a day on; today where none is named. */
export const firmQuery = (first: string | null, weeks: number) =>
  queryOptions({
    queryKey: ["firm", "weeks", first, weeks],
    queryFn: () =>
      take(client.GET("/api/v1/rounds/weeks", { params: { query: { ...(first ? { first } : {}), weeks } } })),
    placeholderData: (before) => before,
  });

/** The same pools on fairer days. */
export const fairQuery = () =>
  queryOptions({
    queryKey: ["firm", "fair"],
    queryFn: () => take(client.GET("/api/v1/rounds/fair")),
  });

/** Today of a technician once it is driven. */
export const dayClosedQuery = (person_id: string, units: Units) =>
  queryOptions({
    queryKey: ["round", "closed", person_id, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/round/closed", { params: { query: { person_id, metric: units === "metric" } } }),
      ),
  });
