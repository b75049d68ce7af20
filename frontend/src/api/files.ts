import { queryOptions } from "@tanstack/react-query";
import { type Units, unitsStore } from "../lib/units";
import { client, take } from "./client";
import type { components } from "./schema";

export type ImportView = components["schemas"]["ImportView"];
export type ImportManner = components["schemas"]["ImportManner"];
export type ImportColumn = components["schemas"]["ImportColumn"];
export type ImportChoices = components["schemas"]["ImportChoices"];
export type ImportPreview = components["schemas"]["ImportPreview"];
export type ImportedFile = components["schemas"]["ImportedFile"];
export type TableKind = components["schemas"]["TableKind"];
export type RowVerdict = components["schemas"]["RowVerdict"];

const metric = () => unitsStore.get() === "metric";

/** The last files that were brought in. */
export const importsQuery = () =>
  queryOptions({ queryKey: ["imports"], queryFn: () => take(client.GET("/api/v1/imports")) });

export const importChoicesQuery = () =>
  queryOptions({
    queryKey: ["imports", "choices"],
    queryFn: () => take(client.GET("/api/v1/imports/choices")),
    staleTime: Number.POSITIVE_INFINITY,
  });

/** A file as it is read; asked for again while it is worked on. */
export const importQuery = (file_id: string, units: Units) =>
  queryOptions({
    queryKey: ["imports", file_id, units],
    queryFn: () => guessAgain(file_id),
    refetchInterval: ({ state }) => (state.data?.file.state === "queued" ? 1000 : false),
  });

/** A file guessed anew, as another kind or from another sheet of it. */
export const guessAgain = (file_id: string, as: { kind?: TableKind; tab?: number } = {}) =>
  take(
    client.GET("/api/v1/imports/{file_id}", {
      params: { path: { file_id }, query: { ...as, metric: metric() } },
    }),
  );

/** Sends a table that was chosen; what it is, is found by what stands in it. */
export const sendTable = (file: File) =>
  take(
    client.POST("/api/v1/imports", {
      params: { query: { id: crypto.randomUUID(), name: file.name, metric: metric() } },
      ...asBytes(file),
    }),
  );

export const sendJournal = (file: File) => take(client.POST("/api/v1/journals", asBytes(file)));

export const sendArchive = (file: File) => take(client.POST("/api/v1/workspace/archive", asBytes(file)));

/** A file goes as it is. */
function asBytes(file: File) {
  return {
    body: file as unknown as undefined as never,
    bodySerializer: () => file,
    headers: { "content-type": "application/octet-stream" },
  };
}

const at = (file_id: string) => ({ params: { path: { file_id } } });

export const previewQuery = (
  file_id: string,
  manner: ImportManner,
  verdict: RowVerdict | null,
  enabled: boolean,
) =>
  queryOptions({
    // Apart from the file itself: one that was applied or dropped is not previewed again.
    queryKey: ["import-preview", file_id, manner, verdict],
    queryFn: () =>
      take(
        client.POST("/api/v1/imports/{file_id}/preview", {
          params: { path: { file_id }, query: { metric: metric() } },
          body: { ...manner, verdict },
        }),
      ),
    enabled,
    retry: false,
  });

export const applyImport = (file_id: string, manner: ImportManner) =>
  take(client.POST("/api/v1/imports/{file_id}/apply", { ...at(file_id), body: manner }));

export const undoImport = (file_id: string) =>
  take(client.POST("/api/v1/imports/{file_id}/undo", at(file_id)));

export const dropImport = (file_id: string) =>
  take(client.POST("/api/v1/imports/{file_id}/drop", at(file_id)));
