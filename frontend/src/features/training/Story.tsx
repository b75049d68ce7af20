import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import type { TrainingGame } from "../../api/types";
import { nameOf, valueText } from "../../lib/measures";
import { temperatureText, type Units } from "../../lib/units";

type Reading = TrainingGame["lines"][number]["readings"][number];

function readingText({ measure, value }: Reading, units: Units): string {
  if (measure === "temperature_c") return temperatureText(value, units);
  return `${nameOf(measure)} ${valueText(measure, value)}`;
}

/** What was done and what it showed, newest first. */
export function Story({ game, units }: { game: TrainingGame; units: Units }) {
  return (
    <Box as="section" aria-label="What was done">
      <Heading as="h2" fontSize="lead" mb="2">
        What was done
      </Heading>
      {game.lines.length === 0 && <Text color="soft">Nothing yet. Look, then test.</Text>}
      <Box as="ol" listStyleType="none" p="0" m="0">
        {game.lines
          .map((line, index) => ({ line, index }))
          .reverse()
          .map(({ line, index }) => (
            <Grid
              as="li"
              key={index}
              templateColumns="5.5rem minmax(0,1fr)"
              columnGap="3"
              py="1.5"
              borderTop="1px solid"
              borderColor="hairline"
            >
              <Text color="soft" fontSize="note" fontVariantNumeric="tabular-nums" pt="0.5">
                Day {line.day}, {line.clock}
              </Text>
              <Box>
                <Text fontWeight="600">{line.text}</Text>
                {line.readings.length > 0 && (
                  <Text fontVariantNumeric="tabular-nums">
                    {line.readings.map((reading) => readingText(reading, units)).join(", ")}
                  </Text>
                )}
              </Box>
            </Grid>
          ))}
      </Box>
    </Box>
  );
}
