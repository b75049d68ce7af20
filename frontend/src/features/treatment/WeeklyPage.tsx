import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { client, take } from "../../api/client";
import { type Weekly, weeklyQuery } from "../../api/weekly";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { nameOf, valueText } from "../../lib/measures";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";

type Way = Weekly["regimes"][number];

/** What an owner really asks: how much a week, in the product that they use. */
export function WeeklyPage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const weekly = useQuery(weeklyQuery(poolId, units));
  return (
    <>
      <PoolHeader poolId={poolId} />
      <Heading as="h1" fontSize="title" mb="3">
        How much a week?
      </Heading>
      {weekly.isPending && <Loading what="the week" />}
      {weekly.isError && <Failed error={weekly.error} again={() => void weekly.refetch()} />}
      {weekly.data && <Week found={weekly.data} poolId={poolId} />}
    </>
  );
}

function Week({ found, poolId }: { found: Weekly; poolId: string }) {
  const ppm = (value: number) => value.toFixed(1);
  const own = found.regimes.filter(({ at_hand, unsuited }) => at_hand && !unsuited);
  const others = found.regimes.filter((way) => !own.includes(way) && !way.unsuited);
  const not = found.regimes.filter(({ unsuited }) => unsuited);
  return (
    <>
      <Card as="section" aria-label="What goes" mb="5" maxW="52rem">
        <Text fontSize="title" fontWeight="700">
          {ppm(found.likely)} ppm a day
        </Text>
        <Text>
          is what this pool loses this week at {ppm(found.level)} ppm of free chlorine; it may be{" "}
          {ppm(found.low)} to {ppm(found.high)}.
        </Text>
        <Text color="soft">{found.basis}</Text>
        {found.once && <Text mt="2">{found.once.text}</Text>}
        {found.cell && (
          <Text mt="3" fontSize="lead" fontWeight="650">
            {found.cell}
          </Text>
        )}
      </Card>
      {own.length > 0 && (
        <Ways title="With what is on the shelf" ways={own} currency={found.currency} poolId={poolId} />
      )}
      {others.length > 0 && (
        <Ways
          title={own.length > 0 ? "With something else" : "With one of these"}
          ways={others}
          currency={found.currency}
          poolId={poolId}
        />
      )}
      {not.length > 0 && (
        <Box as="section" mt="5">
          <Heading as="h2" fontSize="lead" mb="2">
            Not here
          </Heading>
          {not.map((way) => (
            <Text key={way.product_id}>
              {way.name}: {way.unsuited}
            </Text>
          ))}
        </Box>
      )}
    </>
  );
}

interface WaysProps {
  title: string;
  ways: readonly Way[];
  currency: string;
  poolId: string;
}

function Ways({ title, ways, currency, poolId }: WaysProps) {
  return (
    <Box as="section" mb="6">
      <Heading as="h2" fontSize="lead" mb="2">
        {title}
      </Heading>
      <Grid gap="4" templateColumns={{ base: "1fr", lg: "repeat(auto-fit, minmax(26rem, 1fr))" }}>
        {ways.map((way) => (
          <Regime key={way.product_id} way={way} currency={currency} poolId={poolId} />
        ))}
      </Grid>
    </Box>
  );
}

function Regime({ way, currency, poolId }: { way: Way; currency: string; poolId: string }) {
  return (
    <Card as="article">
      <Text color="soft">{way.name}</Text>
      <Text fontSize="lead" fontWeight="700">
        {way.words}
      </Text>
      <Text>
        {way.week_text} a week, {way.range_text} by the range
        {way.week_cost !== null && `; ${currency}${way.week_cost.toFixed(2)}`}.
      </Text>
      {way.moves.length > 0 && (
        <Flex as="ul" listStyleType="none" p="0" mt="2" columnGap="5" rowGap="1" wrap="wrap">
          {way.moves.map(({ measure, in_a_month, in_a_season }) => (
            <Text as="li" key={measure}>
              <Text as="span" fontWeight="600">
                {nameOf(measure)} {signed(measure, in_a_month)}
              </Text>{" "}
              in a month, {signed(measure, in_a_season)} in half a year
            </Text>
          ))}
        </Flex>
      )}
      {way.notes.map((note) => (
        <Text key={note.code + note.text} mt="2">
          {note.text}
        </Text>
      ))}
      <OnSchedule way={way} poolId={poolId} />
      {way.chart && (
        <Text mt="2" fontSize="note" color="soft">
          {way.chart}
        </Text>
      )}
    </Card>
  );
}

/** One tap puts it on the list of what is due, another takes it off. */
function OnSchedule({ way, poolId }: { way: Way; poolId: string }) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);
  async function set(off: boolean) {
    setBusy(true);
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/care/interval", {
          params: { path: { pool_id: poolId } },
          body: {
            id: crypto.randomUUID(),
            at: null,
            person_id: personId(),
            task: way.task,
            days: off ? null : way.every_days,
            off,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify(off ? "Off the schedule." : "On the schedule: it comes up under what is due.");
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  }
  return (
    <Box mt="2" data-noprint>
      <SideButton disabled={busy} onClick={() => void set(way.on_schedule)}>
        {way.on_schedule ? "Take it off the schedule" : "Put it on the schedule"}
      </SideButton>
    </Box>
  );
}

function signed(measure: Way["moves"][number]["measure"], change: number): string {
  return `${change < 0 ? "\u2212" : "+"}${valueText(measure, Math.abs(change))}`;
}
