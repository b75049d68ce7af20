import { Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { poolQuery, seasonQuery } from "../../api/queries";
import { Card } from "../../components/Card";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { coming } from "../../lib/coming";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";
import { Ribbon } from "./Ribbon";
import { SeasonLists } from "./SeasonLists";

/** The year as one strip. */
export function SeasonPage() {
  const { poolId = "" } = useParams();
  const head = useQuery(poolQuery(poolId));
  const season = useQuery(seasonQuery(poolId));
  const units = useStore(unitsStore);
  // All at once: the lists would stand where the year comes, and be pushed away by it.
  if (coming(head, season))
    return (
      <>
        <PoolHeader poolId={poolId} />
        <Loading what="the season" />
      </>
    );
  return (
    <>
      <PoolHeader poolId={poolId} />
      {season.isError && <Failed error={season.error} again={() => void season.refetch()} />}
      {season.data && head.data && (
        <Card as="section" data-print-skip="list">
          <Heading as="h2" fontSize="lead" mb="1">
            The year
          </Heading>
          <Text color="soft" fontSize="note" mb="4">
            Nine months back, three ahead. Water temperature on top, then what happened, row by row.
          </Text>
          {season.data.marks.length === 0 && season.data.warmth.length === 0 ? (
            <Text>Nothing has happened yet. The first test begins the strip.</Text>
          ) : (
            <Ribbon season={season.data} zone={head.data.settings.time_zone} units={units} />
          )}
        </Card>
      )}
      {head.data && <SeasonLists poolId={poolId} zone={head.data.settings.time_zone} />}
    </>
  );
}
