import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { outlookQuery } from "../api/queries";
import type { DayAhead } from "../api/types";
import { useReadsOnly } from "../lib/me";
import { useStore } from "../lib/store";
import { weekday } from "../lib/times";
import { unitsStore } from "../lib/units";
import { Card } from "./Card";
import { Failed, Loading } from "./States";
import { PlainLink } from "./TextLink";

/** The coming week: free chlorine each evening with its band, and what follows in words. */
export function AheadStrip({ poolId, zone }: { poolId: string; zone: string }) {
  const units = useStore(unitsStore);
  const outlook = useQuery(outlookQuery(poolId, units));
  const readsOnly = useReadsOnly();
  if (outlook.isPending)
    return (
      <Card as="section" aria-label="Ahead" minH="16rem">
        <Loading what="what is ahead" />
      </Card>
    );
  if (outlook.isError) return <Failed error={outlook.error} again={() => void outlook.refetch()} />;
  const { days, sentences, volume_hint_l } = outlook.data;
  return (
    <Card as="section" aria-label="Ahead">
      <Flex justify="space-between" align="baseline" mb="3">
        <Text as="h2" fontSize="lead" fontWeight="700">
          Ahead
        </Text>
        {!readsOnly && (
          <PlainLink to={`/pools/${poolId}/log`} fontSize="note">
            history
          </PlainLink>
        )}
      </Flex>
      {days.length === 0 && <Text color="soft">The first test of free chlorine begins the forecast.</Text>}
      {days.length > 0 && <Strip days={days} zone={zone} />}
      {sentences.filter(notInTheSign).map((said) => (
        <Text key={said.code + said.text} mt="2" fontSize={said.code === "narrow" ? "note" : "body"}>
          {said.text}{" "}
          {said.code === "volume_hint" && volume_hint_l !== null && !readsOnly && (
            <PlainLink to={`/pools/${poolId}/setup`}>open Pool</PlainLink>
          )}
        </Text>
      ))}
    </Card>
  );
}

/** The sign of the pool already says when chlorine runs low. */
function notInTheSign({ code }: { code: string }): boolean {
  return code !== "low_now" && code !== "runs_low" && code !== "holds";
}

const HEIGHT = 72;

function Strip({ days, zone }: { days: readonly DayAhead[]; zone: string }) {
  const top = Math.max(4, ...days.map((day) => day.high)) * 1.05;
  const y = (value: number) => `${(1 - value / top) * HEIGHT}px`;
  return (
    <Grid
      as="ul"
      listStyleType="none"
      p="0"
      m="0"
      mb="3"
      templateColumns={`repeat(${days.length}, 1fr)`}
      gap="1"
      aria-label="Free chlorine on the coming evenings"
    >
      {days.map((day) => (
        <Box as="li" key={day.at} textAlign="center">
          <Text fontSize="note" color="soft">
            {weekday(day.at, zone)}
          </Text>
          <Box position="relative" h={`${HEIGHT}px`} aria-hidden="true">
            <Box
              position="absolute"
              left="50%"
              ml="-5px"
              w="10px"
              borderRadius="5px"
              bg="band"
              border="1px solid"
              borderColor="rope"
              top={y(day.high)}
              bottom={`calc(${HEIGHT}px - ${y(day.low)})`}
            />
            <Box
              position="absolute"
              left="50%"
              ml="-9px"
              w="18px"
              h="4px"
              mt="-2px"
              borderRadius="2px"
              bg={day.under_range ? "accent" : "ink"}
              top={y(day.likely)}
            />
          </Box>
          <Text fontWeight="700" color={day.under_range ? "accent" : "ink"}>
            {day.likely.toFixed(1)}
          </Text>
          <Text fontSize="note" color="soft">
            {day.under_range ? "low" : "\u00a0"}
          </Text>
        </Box>
      ))}
    </Grid>
  );
}
