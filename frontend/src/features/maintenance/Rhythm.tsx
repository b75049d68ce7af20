import { Box, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import type { Maintenance, PoolHeaderData } from "../../api/types";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { type Option, PickOne } from "../../components/Pick";
import { personId } from "../../lib/person";

const PRESETS: readonly Option<Maintenance["preset"]>[] = [
  { value: "owner", label: "Owner" },
  { value: "service", label: "Weekly visits" },
  { value: "small", label: "Small pool" },
];

type Season = "auto" | "all" | "warm";
const SEASONS: readonly Option<Season>[] = [
  { value: "auto", label: "By latitude" },
  { value: "all", label: "All year" },
  { value: "warm", label: "April to October" },
];
const MONTHS: Record<Season, number[]> = {
  auto: [],
  all: [1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12],
  warm: [4, 5, 6, 7, 8, 9, 10],
};

/** Whose intervals hold here, and in which months. */
export function Rhythm({ head, care }: { head: PoolHeaderData; care: Maintenance }) {
  const queries = useQueryClient();
  const months = head.settings.season_months;
  const season: Season = months.length === 0 ? "auto" : months.length === 12 ? "all" : "warm";

  async function set(part: { care_preset?: Maintenance["preset"]; season_months?: number[] }) {
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/settings", {
          params: { path: { pool_id: head.id } },
          body: {
            id: crypto.randomUUID(),
            at: null,
            person_id: personId(),
            settings: { ...head.settings, ...part },
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", head.id] });
      notify("Set from now on.");
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Whose rhythm
      </Heading>
      <PickOne
        label="Intervals of"
        options={PRESETS}
        value={care.preset}
        onPick={(care_preset) => void set({ care_preset })}
      />
      <Box mt="3">
        <PickOne
          label="In season"
          options={SEASONS}
          value={season}
          onPick={(picked) => void set({ season_months: MONTHS[picked] })}
        />
      </Box>
      <Text fontSize="note" color="soft" mt="3">
        Common practice; your own intervals stay as you set them.
      </Text>
    </Card>
  );
}
