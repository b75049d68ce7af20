import { queryOptions } from "@tanstack/react-query";
import type { Units } from "../lib/units";
import { client, take } from "./client";
import type { components } from "./schema";

export type Costs = components["schemas"]["CostsView"];
export type CostLine = components["schemas"]["CostLine"];
export type Place = components["schemas"]["Place"];

/** What the pouring of the last days cost. */
export const costsQuery = (days: number, units: Units) =>
  queryOptions({
    queryKey: ["shelf", "costs", days, units],
    queryFn: () =>
      take(client.GET("/api/v1/costs", { params: { query: { days, metric: units === "metric" } } })),
  });
