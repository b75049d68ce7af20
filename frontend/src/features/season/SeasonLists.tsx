import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type SeasonAsked, seasonPlanQuery } from "../../api/queries";
import type { SeasonPlan } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { Failed } from "../../components/States";
import { TextField } from "../../components/TextField";
import { PlainLink } from "../../components/TextLink";
import { dayText } from "../../lib/days";

/** Opening and closing as dated lists for this pool, to be read at the pool or printed. */
export function SeasonLists({ poolId }: { poolId: string }) {
  const [which, setWhich] = useState<SeasonAsked["which"] | null>(null);
  const [asked, setAsked] = useState<Omit<SeasonAsked, "which">>(() => ({
    day: new Date(Date.now() + 2 * DAY_MS).toISOString().slice(0, 10), // closing begins two days before
    kind: "in_ground",
    cover: "solid",
    winter: "frost",
    skimmer_plate: false,
  }));
  const set = (part: Partial<typeof asked>) => setAsked({ ...asked, ...part });
  return (
    <Card as="section" mt="5" aria-label="Opening and closing">
      <Flex justify="space-between" align="center" gap="3" wrap="wrap" mb="3">
        <Heading as="h2" fontSize="lead">
          Opening and closing
        </Heading>
        {which !== null && (
          <SideButton data-noprint onClick={() => window.print()}>
            Print
          </SideButton>
        )}
      </Flex>
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
          <TextField label="On the day" type="date" value={asked.day} onText={(day) => set({ day })} />
        </Box>
        <PickOne
          label="The pool is"
          options={[
            { value: "in_ground", label: "in the ground" },
            { value: "above_ground", label: "above ground" },
          ]}
          value={asked.kind}
          onPick={(kind) => set({ kind })}
        />
        <PickOne
          label="Cover"
          options={[
            { value: "solid", label: "solid" },
            { value: "mesh", label: "mesh" },
            { value: "none", label: "none" },
          ]}
          value={asked.cover}
          onPick={(cover) => set({ cover })}
        />
        <PickOne
          label="Winters"
          options={[
            { value: "frost", label: "with frost" },
            { value: "mild", label: "mild" },
          ]}
          value={asked.winter}
          onPick={(winter) => set({ winter })}
        />
        <PickOne
          label="Skimmer over winter"
          options={[
            { value: "plate", label: "sealed by a plate" },
            { value: "open", label: "open" },
          ]}
          value={asked.skimmer_plate ? "plate" : "open"}
          onPick={(value) => set({ skimmer_plate: value === "plate" })}
        />
      </Flex>
      {which !== null && asked.day !== "" && <TheList poolId={poolId} asked={{ ...asked, which }} />}
    </Card>
  );
}

function TheList({ poolId, asked }: { poolId: string; asked: SeasonAsked }) {
  const plan = useQuery(seasonPlanQuery(poolId, asked));
  if (plan.isError) return <Failed error={plan.error} again={() => void plan.refetch()} />;
  if (plan.data === undefined) return null;
  const { items, materials, notes } = plan.data;
  return (
    <Box mt="5">
      {notes.map((note) => (
        <Text key={note} fontWeight="600">
          {note}
        </Text>
      ))}
      {materials.length > 0 && (
        <Text mt="2">
          <Text as="span" fontWeight="700">
            To have at hand:
          </Text>{" "}
          {materials.join(", ")}.
        </Text>
      )}
      <Box as="ol" listStyleType="none" p="0" m="0" mt="3">
        {items.map((item, index) => (
          <Item
            key={item.key}
            item={item}
            poolId={poolId}
            day={items[index - 1]?.day === item.day ? null : item.day}
          />
        ))}
      </Box>
    </Box>
  );
}

const DAY_MS = 24 * 60 * 60 * 1000;
const LINKS: Record<string, string> = {
  slip: "To the test",
  sheet: "To the sheet",
  care: "To the care list",
  shelf: "To the shelf",
};
const STATIONS: Record<string, string> = { slip: "/slip", sheet: "/sheet", care: "/care" };

function Item({
  item,
  poolId,
  day,
}: {
  item: SeasonPlan["items"][number];
  poolId: string;
  day: string | null;
}) {
  const where = item.station === "shelf" ? "/shelf" : `/pools/${poolId}${STATIONS[item.station ?? ""] ?? ""}`;
  return (
    <Grid
      as="li"
      templateColumns={{ base: "4.5rem minmax(0,1fr)", md: "6.5rem minmax(0,1fr)" }}
      columnGap="3"
      py="2"
      borderTop={day === null ? "none" : "1px solid"}
      borderColor="hairline"
    >
      <Text fontWeight="700">{day === null ? "" : dayText(day)}</Text>
      <Box>
        <Text fontWeight="600">{item.title}</Text>
        <Text>{item.text}</Text>
        {item.minutes > 0 && (
          <Text fontSize="note" color="soft">
            Then {item.minutes >= 60 ? `${item.minutes / 60} h` : `${item.minutes} min`} with the pump on.
          </Text>
        )}
        {item.cautions.map((caution) => (
          <Text key={caution} fontSize="note" color="accent" fontWeight="600">
            {caution}
          </Text>
        ))}
        {item.station && (
          <PlainLink to={where} fontSize="note" data-noprint>
            {LINKS[item.station]}
          </PlainLink>
        )}
      </Box>
    </Grid>
  );
}
