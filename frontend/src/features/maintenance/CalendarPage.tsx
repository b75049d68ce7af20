import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { client, take } from "../../api/client";
import { calendarQuery } from "../../api/queries";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { dayText } from "../../lib/days";
import { personId } from "../../lib/person";
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
          <Feed poolId={poolId} />
        </Grid>
      )}
    </>
  );
}

function Feed({ poolId }: { poolId: string }) {
  const queries = useQueryClient();
  const [path, setPath] = useState<string | null>(null);

  async function run(close: boolean) {
    const at = { params: { path: { pool_id: poolId } } };
    const body = { id: crypto.randomUUID(), at: null, person_id: personId() };
    try {
      if (close) {
        await take(client.POST("/api/v1/pools/{pool_id}/feed/close", { ...at, body }));
        setPath(null);
        notify("The old link opens nothing any more.");
      } else setPath(await take(client.POST("/api/v1/pools/{pool_id}/feed", { ...at, body })));
      await queries.invalidateQueries({ queryKey: ["pool", poolId, "log"] });
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }

  const link = path === null ? "" : `${window.location.origin}${path}`;
  return (
    <Card as="section" data-noprint>
      <Heading as="h2" fontSize="lead" mb="2">
        In your own calendar
      </Heading>
      <Text mb="3">
        A link that a calendar program follows, with an alarm at nine on each day. Whoever has it reads what
        is due.
      </Text>
      {path === null ? (
        <SideButton onClick={() => void run(false)}>Show the link</SideButton>
      ) : (
        <>
          <Text as="output" display="block" fontSize="note" wordBreak="break-all" mb="3" data-testid="feed">
            {link}
          </Text>
          <Flex gap="2" wrap="wrap">
            <SideButton
              onClick={() => void navigator.clipboard?.writeText(link).then(() => notify("Copied."))}
            >
              Copy
            </SideButton>
            <SideButton onClick={() => void run(true)}>Close this link</SideButton>
          </Flex>
        </>
      )}
      <Box mt="4">
        <SideButton asChild>
          <a href={`/api/v1/pools/${poolId}/care.ics`} download="pool-care.ics">
            Calendar file of the year
          </a>
        </SideButton>
      </Box>
    </Card>
  );
}
