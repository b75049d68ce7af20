import { queryOptions } from "@tanstack/react-query";
import { temperatureUnit, type Units } from "../lib/units";
import { client, take } from "./client";
import type { PlanRequest, Severity, TrainingMove } from "./types";

/** One queryOptions per noun. */
export const poolsQuery = () =>
  queryOptions({
    queryKey: ["pools", "all"],
    queryFn: () => take(client.GET("/api/v1/pools", { params: { query: { sort: "name", limit: 200 } } })),
  });

const at = (pool_id: string) => ({ params: { path: { pool_id } } });
const inUnits = (pool_id: string, units: Units) => ({
  params: { path: { pool_id }, query: { metric: units === "metric" } },
});

/** The answer before may stand in while the next one comes, but never another pool's or another person's. */
const ofSame =
  (id: string) =>
  <T>(before: T | undefined, query: { queryKey: readonly unknown[] } | undefined) =>
    query?.queryKey[1] === id ? before : undefined;

export const poolQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "head"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}", at(id))),
    refetchInterval: 60_000,
  });

export const assessmentQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "assessment"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/assessment", at(id))),
  });

export const boardQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "board"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/board", at(id))),
  });

export const treatmentQuery = (id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", id, "sheet", units],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/sheet", inUnits(id, units))),
    refetchInterval: 15_000, // another device may tick the same sheet
  });

export const logQuery = (id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", id, "log", units],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/log", inUnits(id, units))),
  });

export const planQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "plan"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/plan", at(id))),
  });

export const choicesQuery = () =>
  queryOptions({
    queryKey: ["choices"],
    queryFn: () => take(client.GET("/api/v1/choices")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const peopleQuery = () =>
  queryOptions({ queryKey: ["people"], queryFn: () => take(client.GET("/api/v1/people")) });

export const inventoryQuery = (units: Units) =>
  queryOptions({
    queryKey: ["shelf", units],
    queryFn: () => take(client.GET("/api/v1/shelf", { params: { query: { metric: units === "metric" } } })),
  });

export const outlookQuery = (id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", id, "outlook", units],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/outlook", inUnits(id, units))),
  });

export const historiesQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "history"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/history", at(id))),
  });

export const offerQuery = (pool_id: string, asked: PlanRequest, units: Units) =>
  queryOptions({
    queryKey: ["pool", pool_id, "offer", asked, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/offer", {
          params: { path: { pool_id }, query: { ...asked, metric: units === "metric" } },
        }),
      ),
    retry: false,
  });

export const strategiesQuery = (id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", id, "ways", units],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/ways", inUnits(id, units))),
  });

export const toBuyQuery = (units: Units) =>
  queryOptions({
    queryKey: ["shelf", "to-buy", units],
    queryFn: () =>
      take(client.GET("/api/v1/shelf/to-buy", { params: { query: { metric: units === "metric" } } })),
  });

export const preferencesQuery = () =>
  queryOptions({ queryKey: ["habits"], queryFn: () => take(client.GET("/api/v1/habits")) });

export const lastValuesQuery = (pool_id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", pool_id, "last", units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/slip/last", {
          params: { path: { pool_id }, query: { temperature_unit: temperatureUnit(units) } },
        }),
      ),
  });

export const seasonQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "season"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/season", at(id))),
  });

export const roundQuery = (person_id: string, weekday: number | null, units: Units) =>
  queryOptions({
    queryKey: ["round", person_id, weekday, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/round", {
          params: { query: { person_id, weekday, metric: units === "metric" } },
        }),
      ),
    placeholderData: ofSame(person_id),
  });

export const todayQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "today"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/today", at(id))),
  });

export const maintenanceQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "care"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/care", at(id))),
  });

export const calendarQuery = (pool_id: string) =>
  queryOptions({
    queryKey: ["pool", pool_id, "calendar"],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/calendar", {
          params: { path: { pool_id }, query: { days: 42 } },
        }),
      ),
  });

export const procedureQuery = (pool_id: string, key: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", pool_id, "procedure", key, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/procedures/{key}", {
          params: { path: { pool_id, key }, query: { metric: units === "metric" } },
        }),
      ),
    retry: false,
  });

export const equipmentQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "benches"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/benches", at(id))),
  });

export const interviewQuery = (tree: string, answers: string[]) =>
  queryOptions({
    queryKey: ["interview", tree, answers],
    queryFn: () => take(client.GET("/api/v1/interview", { params: { query: { tree, answers } } })),
    placeholderData: ofSame(tree),
  });

export const acidBathQuery = (container: string, acid_percent: string, ratio: "4" | "5", units: Units) =>
  queryOptions({
    queryKey: ["acid-bath", container, acid_percent, ratio, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/acid-bath", {
          params: {
            query: { container, acid_percent, ratio: ratio === "4" ? 4 : 5, metric: units === "metric" },
          },
        }),
      ),
    enabled: container.trim() !== "",
    retry: false,
  });

export const keyQuestionsQuery = () =>
  queryOptions({
    queryKey: ["identify", "questions"],
    queryFn: () => take(client.GET("/api/v1/identify/questions")),
    staleTime: Number.POSITIVE_INFINITY,
  });

export const identifyQuery = (answers: string[]) =>
  queryOptions({
    queryKey: ["identify", answers],
    queryFn: () => take(client.GET("/api/v1/identify", { params: { query: { answers } } })),
    placeholderData: (before) => before,
  });

export interface SeasonRequest {
  which: "opening" | "closing";
  day: string;
  kind: "in_ground" | "above_ground";
  cover: "none" | "solid" | "mesh";
  winter: "frost" | "mild";
  skimmer_plate: boolean;
}

export const seasonPlanQuery = (pool_id: string, asked: SeasonRequest, units: Units) =>
  queryOptions({
    queryKey: ["pool", pool_id, "season-plan", asked, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/season-plan", {
          params: { path: { pool_id }, query: { ...asked, metric: units === "metric" } },
        }),
      ),
    placeholderData: ofSame(pool_id),
    retry: false,
  });

export const seasonListsQuery = (id: string, units: Units) =>
  queryOptions({
    queryKey: ["pool", id, "season-lists", units],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/season-lists", inUnits(id, units))),
  });

/** One day for the owner; without a day the last one with something to tell. */
export const reportQuery = (id: string, day: string | null, units: Units) =>
  queryOptions({
    queryKey: ["pool", id, "report", day, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/report", {
          params: { path: { pool_id: id }, query: { day, metric: units === "metric" } },
        }),
      ),
    placeholderData: ofSame(id), // another day may stand in until this one is here
  });

export const climateQuery = (id: string) =>
  queryOptions({
    queryKey: ["pool", id, "climate"],
    queryFn: () => take(client.GET("/api/v1/pools/{pool_id}/climate", at(id))),
  });

export const rescueQuery = (
  pool_id: string,
  preview: { severity: Severity | null; byRatio: boolean },
  units: Units,
) =>
  queryOptions({
    queryKey: ["pool", pool_id, "rescue", preview, units],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/rescue", {
          params: {
            path: { pool_id },
            query: { severity: preview.severity, by_ratio: preview.byRatio, metric: units === "metric" },
          },
        }),
      ),
    placeholderData: ofSame(pool_id),
  });

export const trainingQuery = (units: Units) =>
  queryOptions({
    queryKey: ["practice", units],
    queryFn: () =>
      take(client.GET("/api/v1/practice", { params: { query: { metric: units === "metric" } } })),
    staleTime: Number.POSITIVE_INFINITY,
  });

export interface TrainingState {
  scenario: string;
  seed: number;
  moves: TrainingMove[];
  finished: boolean;
}

/** The same moves give the same game, so it is a question like any other. */
export const gameQuery = (state: TrainingState, units: Units) =>
  queryOptions({
    queryKey: ["practice", "game", state, units],
    queryFn: () =>
      take(
        client.POST("/api/v1/practice/play", {
          params: { query: { metric: units === "metric" } },
          body: state,
        }),
      ),
    placeholderData: (before) => before,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
