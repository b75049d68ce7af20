import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import type { Rescue } from "../../api/types";
import { useStore } from "../../lib/store";
import { unitsStore, volumeText } from "../../lib/units";
import { moneyText } from "./spans";

/** What it has taken so far and will still take, and what climbs meanwhile. */
export function TallyCard({ seen }: { seen: Rescue }) {
  const units = useStore(unitsStore);
  const { tally, watch } = seen.board;
  const { currency } = seen.compared;
  const [low = 0, , high = 0] = tally.ahead_mg_l;
  const soFar = seen.open
    ? [
        [
          "Chlorine so far",
          `${tally.used_mg_l.toFixed(0)} ppm in ${seen.board.rounds} ${seen.board.rounds === 1 ? "round" : "rounds"}`,
          tally.used_cost === null ? "" : moneyText([tally.used_cost], currency),
        ],
        [
          "Pump so far",
          `${tally.pump_hours.toFixed(0)} h`,
          tally.pump_cost === null ? "" : moneyText([tally.pump_cost], currency),
        ],
        ["Water so far", volumeText(tally.water_l, units), ""],
      ]
    : [];
  const rows = [
    ...soFar,
    [
      "Chlorine to come",
      `${low.toFixed(0)} to ${high.toFixed(0)} ppm${tally.ahead_text ? `: ${tally.ahead_text}` : ""}`,
      moneyText(tally.ahead_cost, currency),
    ],
  ];
  return (
    <Box as="section" aria-label="What it takes">
      <Heading as="h2" fontSize="lead" mb="2">
        What it takes
      </Heading>
      <Grid templateColumns="minmax(0,1fr) auto" columnGap="3" rowGap="2">
        {rows.map(([name, amount, money]) => (
          <Box key={name} display="contents">
            <Text>
              <Text as="span" color="soft" fontSize="note" display="block">
                {name}
              </Text>
              {amount}
            </Text>
            <Text textAlign="right" fontVariantNumeric="tabular-nums" alignSelf="end">
              {money}
            </Text>
          </Box>
        ))}
      </Grid>
      {watch.map((line) => (
        <Text key={line.code} mt="2" fontSize="note">
          {line.text}
        </Text>
      ))}
    </Box>
  );
}
