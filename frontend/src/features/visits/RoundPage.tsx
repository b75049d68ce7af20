import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { useNavigate } from "react-router";
import { fetchForTheRound } from "../../api/forTheRound";
import { peopleQuery } from "../../api/queries";
import type { Round, Stop } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { driverStore, startRound } from "../../lib/round";
import { useStore } from "../../lib/store";
import { dayName } from "../../lib/times";
import { distanceText, unitsStore } from "../../lib/units";
import { DayClosed } from "./DayClosed";
import { LoadList } from "./LoadList";
import { StopCard } from "./StopCard";
import { useRound } from "./useRound";

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"] as const;

/** The technician's day: stops in order, what each needs, what to load, what drifts elsewhere. */
export function RoundPage() {
  const person = useStore(driverStore);
  const units = useStore(unitsStore);
  const [weekday, setWeekday] = useState<number | null>(null);
  const round = useRound(person, weekday, units);
  useEffect(() => {
    document.title = "Round · Kumpan";
  }, []);
  const queries = useQueryClient();
  const stops = round.query.data?.stops.map(({ head }) => head.id).join();
  useEffect(() => {
    if (stops) void fetchForTheRound(queries, stops.split(","), units);
  }, [queries, stops, units]);
  if (person === "") return <WhoDrives />;
  if (round.query.isPending) return <Loading what="the round" />;
  if (round.query.isError)
    return <Failed error={round.query.error} again={() => void round.query.refetch()} />;
  return <TheRound round={round} view={round.query.data} onDay={setWeekday} />;
}

function WhoDrives() {
  const people = useQuery(peopleQuery());
  return (
    <Card maxW="40rem">
      <Heading as="h1" fontSize="title" mb="2">
        Whose round?
      </Heading>
      <Text mb="4">A round belongs to the technician who drives it.</Text>
      <Flex gap="3" wrap="wrap">
        {people.data?.map((person) => (
          <MainButton key={person.id} onClick={() => driverStore.set(person.id)}>
            {person.name}
          </MainButton>
        ))}
      </Flex>
      {people.data?.length === 0 && <Text>Nobody is here yet: add people under your name.</Text>}
    </Card>
  );
}

interface TheRoundProps {
  round: ReturnType<typeof useRound>;
  view: Round;
  onDay: (weekday: number) => void;
}

function TheRound({ round, view, onDay }: TheRoundProps) {
  const person = useStore(driverStore);
  const navigate = useNavigate();
  const units = useStore(unitsStore);
  const ids = view.standing; // what is changed here is the weekly round; a single day is changed in the weeks ahead
  const left = view.stops.filter(({ done }) => done === null);
  const next = left[0];

  function start(stop: Stop) {
    startRound(view.stops.map(({ head }) => ({ id: head.id, name: head.settings.name })));
    void navigate(`/pools/${stop.head.id}/test`);
  }
  function move(pool: string, by: 1 | -1) {
    const order = [...ids];
    const index = order.indexOf(pool);
    const [taken] = order.splice(index, 1);
    if (taken !== undefined) order.splice(index + by, 0, taken);
    void round.setStops(view.weekday, order);
  }

  return (
    <>
      <Flex justify="space-between" align="end" wrap="wrap" gap="4" mb="4">
        <Box>
          <Heading as="h1" fontSize="title" lineHeight="1.25">
            {view.is_today ? "Today’s round" : `${view.day_name}’s round`}
          </Heading>
          <Text color="soft">
            {summary(view, left.length)} <PlainLink to="/round/weeks">Weeks ahead</PlainLink>
          </Text>
        </Box>
        <Flex gap="3" align="end" data-noprint>
          <Box w="11rem">
            <SelectField
              label="Day"
              value={String(view.weekday)}
              options={DAYS.map((name, day) => ({ value: String(day), label: name }))}
              onPick={(day) => onDay(Number(day))}
            />
          </Box>
          <SideButton onClick={() => window.print()}>Print</SideButton>
        </Flex>
      </Flex>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 22rem" }} gap="5" alignItems="start">
        <Box>
          {next !== undefined && view.nearest_next.length > 0 && (
            <Shorter
              view={view}
              busy={round.busy}
              onTake={() => void round.setStops(view.weekday, view.nearest_next)}
            />
          )}
          {view.stops.length === 0 && <NoStops view={view} />}
          <Grid as="ol" listStyleType="none" p="0" m="0" gap="4">
            {view.stops.map((stop, index) => (
              <StopCard
                key={stop.head.id}
                stop={stop}
                number={index + 1}
                units={units}
                isNext={view.is_today && stop === next}
                canMove={{
                  up: ids.indexOf(stop.head.id) > 0,
                  down: ids.includes(stop.head.id) && ids.indexOf(stop.head.id) < ids.length - 1,
                }}
                todayOnly={!ids.includes(stop.head.id)}
                busy={round.busy}
                onStart={() => start(stop)}
                onMove={(by) => move(stop.head.id, by)}
                onRemove={() =>
                  void round.setStops(
                    view.weekday,
                    ids.filter((id) => id !== stop.head.id),
                  )
                }
              />
            ))}
          </Grid>
        </Box>
        <Grid gap="5">
          <LoadList trays={view.load} busy={round.busy} onCount={round.count} />
          <Exceptions view={view} />
          {view.is_today && view.stops.some(({ done }) => done !== null) && (
            <DayClosed person={person} units={units} />
          )}
          <Others
            view={view}
            busy={round.busy}
            onAdd={(id) => void round.setStops(view.weekday, [...ids, id])}
          />
        </Grid>
      </Grid>
    </>
  );
}

function summary(view: Round, left: number): string {
  if (view.stops.length === 0) return "No stops yet.";
  const stops = `${view.stops.length} ${view.stops.length === 1 ? "stop" : "stops"}`;
  if (!view.is_today) return stops;
  return left === 0 ? `${stops}, all done.` : `${stops}, ${left} to go.`;
}

function Shorter({ view, busy, onTake }: { view: Round; busy: boolean; onTake: () => void }) {
  const units = useStore(unitsStore);
  const saved = view.length_km - view.nearest_km;
  if (saved < 0.1) return null;
  return (
    <Flex align="center" gap="4" mb="4" wrap="wrap" data-noprint>
      <Text>
        In another order the way is {distanceText(view.nearest_km, units)} instead of{" "}
        {distanceText(view.length_km, units)} as the crow flies.
      </Text>
      <SideButton disabled={busy} onClick={onTake}>
        Take that order
      </SideButton>
    </Flex>
  );
}

function NoStops({ view }: { view: Round }) {
  return (
    <Card mb="4">
      <Text fontWeight="600" mb="1">
        No stops on {view.day_name}.
      </Text>
      <Text>
        Add pools from the list of others; the round holds every week on this day.
        {view.days.length > 0 && ` You drive on ${view.days.map((day) => DAYS[day]).join(", ")}.`}
      </Text>
    </Card>
  );
}

/** What today asks for beside the round: a return, or a licensed trade. */
function Exceptions({ view }: { view: Round }) {
  const open = [...view.stops, ...view.others].filter(
    ({ last_visit }) => last_visit !== null && (last_visit.needs_return || last_visit.trade !== ""),
  );
  if (open.length === 0) return null;
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Exceptions
      </Heading>
      {open.map(({ head, last_visit }) => (
        <Box key={head.id} py="2" borderTop="1px solid" borderColor="hairline">
          <PlainLink to={`/pools/${head.id}/log`}>{head.settings.name}</PlainLink>
          <Text>
            {last_visit?.needs_return && "Come back. "}
            {last_visit?.trade && `Licensed trade: ${last_visit.trade}. `}
            {last_visit?.note}
          </Text>
          <Text fontSize="note" color="soft">
            {last_visit && dayName(last_visit.at, head.settings.time_zone)}
          </Text>
        </Box>
      ))}
    </Card>
  );
}

function Others({ view, busy, onAdd }: { view: Round; busy: boolean; onAdd: (id: string) => void }) {
  if (view.others.length === 0) return null;
  return (
    <Card as="section" data-noprint>
      <Heading as="h2" fontSize="lead" mb="2">
        Other pools
      </Heading>
      {view.others.map(({ head }) => (
        <Flex
          key={head.id}
          py="2"
          gap="3"
          justify="space-between"
          align="center"
          borderTop="1px solid"
          borderColor="hairline"
        >
          <Box>
            <PlainLink to={`/pools/${head.id}`}>{head.settings.name}</PlainLink>
            <Text fontSize="note" color="soft">
              {head.next.text}
            </Text>
          </Box>
          <SideButton
            flexShrink={0}
            disabled={busy}
            aria-label={`Add ${head.settings.name} to this round`}
            onClick={() => onAdd(head.id)}
          >
            Add
          </SideButton>
        </Flex>
      ))}
    </Card>
  );
}
