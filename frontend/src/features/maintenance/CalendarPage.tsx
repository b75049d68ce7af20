import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";
import { calendarQuery, poolQuery } from "../../api/queries";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PoolHeader } from "../../components/PoolHeader";
import { PoolLinks } from "../../components/PoolLinks";
import { Failed, Loading } from "../../components/States";
import { dayText } from "../../lib/days";
import { MaintenanceNav } from "./MaintenanceNav";

/** Six weeks ahead, day by day, and the way into one's own calendar. */
export function CalendarPage() {
  const { poolId = "" } = useParams();
  const days = useQuery(calendarQuery(poolId));
  return (
    <>
      <PoolHeader poolId={poolId} />
      <MaintenanceNav poolId={poolId} />
      {days.isPending && <Loading what="the calendar" />}
      {days.isError && <Failed error={days.error} again={() => void days.refetch()} />}
      {days.data && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 22rem" }}
          gap="5"
          alignItems="start"
        >
          <Card as="section">
            <Heading as="h2" fontSize="lead" mb="2">
              Six weeks ahead
            </Heading>
            <Text color="soft" fontSize="note" mb="3">
              As if each were done on its day; done late, what follows moves.
            </Text>
            {days.data.length === 0 && (
              <Text>Nothing has a date yet. Enter a test, and the schedule begins.</Text>
            )}
            <Box as="ol" listStyleType="none" p="0" m="0">
              {days.data.map(({ day, items }) => (
                <Grid
                  as="li"
                  key={day}
                  templateColumns="6.5rem minmax(0,1fr)"
                  columnGap="3"
                  py="1.5"
                  borderTop="1px solid"
                  borderColor="hairline"
                >
                  <Text fontWeight="650">{dayText(day)}</Text>
                  <Text>{items.map(({ title }) => title).join(" · ")}</Text>
                </Grid>
              ))}
            </Box>
          </Card>
          <OwnCalendar poolId={poolId} />
        </Grid>
      )}
    </>
  );
}

function OwnCalendar({ poolId }: { poolId: string }) {
  const head = useQuery(poolQuery(poolId));
  return (
    <div>
      {head.data && <PoolLinks poolId={poolId} zone={head.data.settings.time_zone} kind="feed" />}
      <SideButton asChild mt="4">
        <a href={`/api/v1/pools/${poolId}/care.ics`} download="pool-care.ics">
          Calendar file of the year
        </a>
      </SideButton>
    </div>
  );
}
