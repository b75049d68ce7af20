import { queryOptions, useQuery } from "@tanstack/react-query";
import { client, Trouble, take } from "../../api/client";
import type { BasinTyped, BasinView } from "../../api/types";
import type { Units } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";
import { type PoolForm, typedBasin } from "./form";

const NOTHING: BasinTyped = {
  unit: "ft",
  parts: [],
  fixtures: [],
  volume: "",
  volume_unit: "gal",
  volume_is_unknown: true,
};

/** What the server finds of a size; it refuses with Trouble what cannot be. */
export const basinQuery = (basin: BasinTyped | null) =>
  queryOptions({
    queryKey: ["basin", basin],
    queryFn: () => take(client.POST("/api/v1/basins/preview", { body: basin ?? NOTHING })),
    retry: false,
  });

/** What the server finds of the size as it is typed: volume and drawing, or what it would not have. */
export function useVolume(
  form: PoolForm,
  units: Units,
): { found: BasinView | null; trouble: Trouble | null } {
  const basin = useDebounced(typedBasin(form, units), 250);
  const known = basin !== null && !basin.volume_is_unknown;
  const preview = useQuery({
    ...basinQuery(basin),
    enabled: known,
    placeholderData: (before) => before,
  });
  return {
    found: known ? (preview.data ?? null) : null,
    trouble: known && preview.error instanceof Trouble ? preview.error : null,
  };
}
