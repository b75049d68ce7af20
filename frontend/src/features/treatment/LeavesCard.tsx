import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { boardQuery } from "../../api/queries";
import { Card } from "../../components/Card";
import { Track } from "../../components/GaugeTrack";
import { valueText } from "../../lib/measures";

/** What the plan leaves in the water: the solid float now, the hollow one after it. */
export function LeavesCard({ poolId, left }: { poolId: string; left: number }) {
  const board = useQuery(boardQuery(poolId));
  const lanes = board.data?.lanes.filter((lane) => lane.reading !== null && lane.high !== null) ?? [];
  if (lanes.length === 0) return null;
  return (
    <Card as="section" aria-label="Leaves the water" data-noprint>
      <Flex justify="space-between" align="baseline" mb="2" gap="3">
        <Text as="h2" fontSize="lead" fontWeight="700">
          Leaves the water
        </Text>
        <Text fontSize="note" color="soft">
          {left === 0 ? "nothing left outside" : `${left} not settled by it`}
        </Text>
      </Flex>
      {lanes.map((lane) => {
        const after = lane.planned ?? lane.reading;
        return (
          <Grid
            key={lane.measure}
            templateColumns="6rem minmax(0,1fr) 3.5rem"
            columnGap="3"
            alignItems="center"
            minH="34px"
          >
            <Text fontSize="note" fontWeight="650">
              {lane.name}
            </Text>
            <Box position="relative" h="34px" aria-hidden="true">
              <Track lane={lane} planned={lane.planned} />
            </Box>
            <Text fontWeight="700" textAlign="right">
              {after === null ? "" : valueText(lane.measure, after.value)}
            </Text>
          </Grid>
        );
      })}
    </Card>
  );
}
