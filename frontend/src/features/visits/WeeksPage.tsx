import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { firmQuery } from "../../api/firm";
import { SideButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";

import { OwnTaskForm } from "../../forms/OwnTaskForm";
import { daysAfter, dayText } from "../../lib/days";
import { useMe } from "../../lib/me";
import { DayCard } from "./DayCard";
import { FairCard } from "./FairCard";
import { AwayForm, OnceForm } from "./PlanForms";
import { useFirm } from "./useFirm";

/** The firm's weeks ahead, one at a time: who drives where, what differs, and what found no day. */
export function WeeksPage() {
  const [first, setFirst] = useState<string | null>(null);
  const found = useQuery(firmQuery(first, 1));
  const office = useMe()?.role === "office";
  const firm = useFirm();
  useEffect(() => {
    document.title = "Weeks ahead · Kumpan";
  }, []);
  if (found.isPending) return <Loading what="the weeks ahead" />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const view = found.data;
  const names = new Map(view.pools.map(({ id, name }) => [id, name]));
  const people = new Map(view.technicians.map(({ id, name }) => [id, name]));
  const days = [...new Set(view.days.map(({ day }) => day))];
  return (
    <>
      <Flex justify="space-between" align="end" wrap="wrap" gap="4" mb="4">
        <Box>
          <Heading as="h1" fontSize="title" lineHeight="1.25">
            {dayText(view.first)} to {dayText(daysAfter(view.first, 6))}
          </Heading>
          <Text color="soft">
            {view.days.reduce((sum, day) => sum + day.stops.length, 0)} stops of {view.technicians.length}{" "}
            {view.technicians.length === 1 ? "technician" : "technicians"}.{" "}
            <PlainLink to="/round">One day’s round</PlainLink>
          </Text>
        </Box>
        <Flex gap="3" data-noprint>
          <SideButton onClick={() => setFirst(daysAfter(view.first, -7))}>Week before</SideButton>
          <SideButton disabled={first === null} onClick={() => setFirst(null)}>
            Today
          </SideButton>
          <SideButton onClick={() => setFirst(daysAfter(view.first, 7))}>Week after</SideButton>
        </Flex>
      </Flex>
      {view.unplaced.length > 0 && (
        <Caution mb="4">
          <Text fontWeight="700">Without a day</Text>
          {view.unplaced.map((one) => (
            <Text key={`${one.pool}${one.day}`}>
              {names.get(one.pool)}, {dayText(one.day)}: {one.reason}
            </Text>
          ))}
        </Caution>
      )}
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 21rem" }} gap="5" alignItems="start">
        <Box>
          {days.length === 0 && (
            <Card>
              <Text>
                Nobody drives in this week. Rounds are set day by day under{" "}
                <PlainLink to="/round">the round</PlainLink>.
              </Text>
            </Card>
          )}
          {days.map((day) => (
            <Box as="section" key={day} aria-label={dayText(day)} mb="5">
              <Heading as="h2" fontSize="lead" mb="2">
                {dayText(day)}
                {day === view.today && ", today"}
              </Heading>
              <Grid
                templateColumns={{ base: "minmax(0,1fr)", md: "repeat(auto-fill, minmax(18rem, 1fr))" }}
                gap="3"
              >
                {view.days
                  .filter((one) => one.day === day)
                  .map((one) => (
                    <DayCard
                      key={one.technician}
                      one={one}
                      who={people.get(one.technician) ?? "Somebody"}
                      names={names}
                      people={people}
                      days={view.days}
                      firm={office ? firm : null}
                    />
                  ))}
              </Grid>
            </Box>
          ))}
        </Box>
        {office && (
          <Grid gap="5" templateColumns="minmax(0,1fr)" data-noprint>
            <AwayForm view={view} firm={firm} />
            <OnceForm view={view} firm={firm} />
            <FairCard firm={firm} />
            <Card as="section" aria-label="A task for every pool on the plan">
              <Heading as="h2" fontSize="lead" mb="2">
                A task for every pool on the plan
              </Heading>
              <OwnTaskForm
                pools={view.pools.filter(({ on_plan }) => on_plan).map(({ id }) => id)}
                button="Put it on every list"
              />
            </Card>
          </Grid>
        )}
      </Grid>
    </>
  );
}
