import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { climateQuery, type SeasonRequest, seasonListsQuery, seasonPlanQuery } from "../../api/queries";
import type { Climate } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { Failed } from "../../components/States";
import { TextField } from "../../components/TextField";
import { dayText } from "../../lib/days";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { ClimateCard } from "./ClimateCard";
import { ItemLine } from "./ItemLine";
import { ListCard, NAMES, Notes } from "./ListCard";
import { CLIMATE, LIST, useSeasonLists } from "./useSeasonLists";

/** Opening and closing: the lists that are kept, when the water turns, and a new list. */
export function SeasonLists({ poolId, zone }: { poolId: string; zone: string }) {
  const units = useStore(unitsStore);
  const lists = useQuery(seasonListsQuery(poolId, units));
  const climate = useQuery(climateQuery(poolId));
  const work = useSeasonLists(poolId, units);
  return (
    <>
      {lists.isError && <Failed error={lists.error} again={() => void lists.refetch()} />}
      {lists.data?.map((list) => (
        <ListCard key={list.kept.list_id} list={list} poolId={poolId} zone={zone} {...work} />
      ))}
      <ClimateCard poolId={poolId} units={units} busy={work.goes(CLIMATE)} setClimate={work.setClimate} />
      {climate.data && (
        <NewList
          key={JSON.stringify(climate.data.suggested)}
          suggested={climate.data.suggested}
          poolId={poolId}
          zone={zone}
          units={units}
          busy={work.goes(LIST)}
          keep={work.keep}
        />
      )}
    </>
  );
}

interface NewListProps extends Pick<ReturnType<typeof useSeasonLists>, "keep"> {
  busy: boolean;
  poolId: string;
  zone: string;
  units: Units;
  suggested: Climate["suggested"];
}

/** One date and the pool as it stands over winter give the dated list; kept, it can be ticked. */
function NewList({ poolId, zone, units, suggested, busy, keep }: NewListProps) {
  const [which, setWhich] = useState<SeasonRequest["which"] | null>(null);
  const { opening_day, closing_day, ...standing } = suggested;
  const [stands, setStands] = useState(standing);
  const [ownDay, setOwnDay] = useState<string | null>(null);
  const day = ownDay ?? (which === null ? "" : which === "opening" ? opening_day : closing_day);
  const set = (part: Partial<typeof stands>) => setStands({ ...stands, ...part });
  return (
    <Card
      as="section"
      mt="5"
      aria-label="A new opening or closing"
      {...(which === null ? { "data-noprint": true } : {})}
    >
      <Heading as="h2" fontSize="lead" mb="3">
        Plan an opening or a closing
      </Heading>
      <Flex gap="5" wrap="wrap" align="end" data-noprint>
        <PickOne
          label="Which list"
          options={[
            { value: "opening", label: "Opening" },
            { value: "closing", label: "Closing" },
          ]}
          value={which}
          onPick={setWhich}
        />
        <Box w="11rem">
          <TextField label="On the day" type="date" value={day} onText={setOwnDay} />
        </Box>
        <PickOne
          label="The pool is"
          options={[
            { value: "in_ground", label: "In the ground" },
            { value: "above_ground", label: "Above ground" },
          ]}
          value={stands.kind}
          onPick={(kind) => set({ kind })}
        />
        <PickOne
          label="Cover"
          options={[
            { value: "solid", label: "Solid" },
            { value: "mesh", label: "Mesh" },
            { value: "none", label: "None" },
          ]}
          value={stands.cover}
          onPick={(cover) => set({ cover })}
        />
        <PickOne
          label="Winters"
          options={[
            { value: "frost", label: "With frost" },
            { value: "mild", label: "Mild" },
          ]}
          value={stands.winter}
          onPick={(winter) => set({ winter })}
        />
        <PickOne
          label="Skimmer over winter"
          options={[
            { value: "plate", label: "Sealed by a plate" },
            { value: "open", label: "Open" },
          ]}
          value={stands.skimmer_plate ? "plate" : "open"}
          onPick={(value) => set({ skimmer_plate: value === "plate" })}
        />
      </Flex>
      {which !== null && day !== "" && (
        <Preview
          poolId={poolId}
          zone={zone}
          units={units}
          busy={busy}
          asked={{ ...stands, day, which }}
          onKeep={(list) =>
            void keep(list, `${NAMES[which]} is kept: tick it off day by day.`).then(
              (good) => good && setWhich(null),
            )
          }
        />
      )}
    </Card>
  );
}

interface PreviewProps extends Omit<NewListProps, "keep" | "suggested"> {
  asked: SeasonRequest;
  onKeep: (list: Parameters<NewListProps["keep"]>[0]) => void;
}

function Preview({ poolId, zone, units, busy, asked, onKeep }: PreviewProps) {
  const plan = useQuery(seasonPlanQuery(poolId, asked, units));
  if (plan.isError) return <Failed error={plan.error} again={() => void plan.refetch()} />;
  if (plan.data === undefined) return null;
  const { kept, items } = plan.data;
  return (
    <Box mt="4">
      <Flex gap="4" align="center" wrap="wrap" data-noprint>
        <MainButton
          disabled={busy || plan.isPlaceholderData}
          onClick={() => onKeep({ ...kept, list_id: crypto.randomUUID() })}
        >
          Keep this list
        </MainButton>
        <Text color="soft">
          {items.length} items from {dayText(items[0]?.item.day ?? asked.day)}; kept, they can be ticked and
          changed.
        </Text>
      </Flex>
      <Notes list={plan.data} zone={zone}>
        {plan.data.materials.length > 0 && (
          <Text mt="2">
            <Text as="span" fontWeight="700">
              To have at hand:
            </Text>{" "}
            {plan.data.materials.map(({ name }) => name).join(", ")}.
          </Text>
        )}
      </Notes>
      <Box as="ol" listStyleType="none" p="0" m="0" mt="3">
        {items.map((line, index) => (
          <ItemLine
            key={line.item.key}
            line={line}
            poolId={poolId}
            zone={zone}
            busy={busy}
            day={items[index - 1]?.item.day === line.item.day ? null : line.item.day}
          />
        ))}
      </Box>
    </Box>
  );
}
