import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import type { RescueBoard } from "../../api/types";
import { dayText } from "../../lib/days";
import { clock, dayKey, weekday } from "../../lib/times";
import { spanText } from "./spans";

const DAY_MS = 86_400_000;
const at = (day: string) => Date.parse(`${day}T12:00:00Z`);

/** When it will be clear, as it was told at first, on the way, and now: the bars should narrow. */
export function ClearBand({ board, zone }: { board: RescueBoard; zone: string }) {
  const days = board.trail.flatMap(({ at: told, clear }) => [dayKey(told, zone), clear.low, clear.high]);
  const first = Math.min(...days.map(at));
  const last = Math.max(...days.map(at)) + DAY_MS / 2;
  const place = (day: string) => `${(100 * (at(day) - first)) / (last - first)}%`;
  const width = (low: string, high: string) =>
    `${(100 * (at(high) - at(low) + DAY_MS / 2)) / (last - first)}%`;
  return (
    <Box as="section" aria-label="When it will be clear">
      <Heading as="h2" fontSize="lead">
        Clear {spanText(board.clear)}
      </Heading>
      <Text color="soft" fontSize="note" mb="3">
        At the start nine in ten such pools are clear within the bar, if the plan is followed. Each test and
        look moves and narrows it.
      </Text>
      <Grid templateColumns="6.5rem minmax(0,1fr)" columnGap="3" rowGap="1" fontSize="note">
        {board.trail.map(({ at: told, clear }, index) => {
          const now = index === board.trail.length - 1;
          return (
            <Box key={`${told}${index}`} display="contents">
              <Text fontWeight={now ? "700" : "400"}>
                {now ? "As of now" : `${weekday(told, zone)} ${clock(told, zone)}`}
              </Text>
              <Box position="relative" h="22px" borderLeft="2px solid" borderColor="hairline">
                <Box
                  position="absolute"
                  left={place(clear.low)}
                  w={width(clear.low, clear.high)}
                  top={now ? "4px" : "8px"}
                  h={now ? "14px" : "6px"}
                  bg={now ? "rope" : "control"}
                  borderRadius="3px"
                />
                <Box
                  position="absolute"
                  left={place(clear.likely)}
                  top="1px"
                  h="20px"
                  w="4px"
                  bg="ink"
                  borderRadius="2px"
                />
              </Box>
            </Box>
          );
        })}
        <Box />
        <Box display="flex" justifyContent="space-between" color="soft">
          <span>{dayText(new Date(first).toISOString().slice(0, 10))}</span>
          <span>{dayText(new Date(last - DAY_MS / 2).toISOString().slice(0, 10))}</span>
        </Box>
      </Grid>
    </Box>
  );
}
