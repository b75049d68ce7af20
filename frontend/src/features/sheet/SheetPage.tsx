import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { incidentQuery, poolQuery, shockQuery } from "../../api/queries";
import type { Incident, Sheet, ShockWay } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { Sign } from "../../components/Sign";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useStore } from "../../lib/store";
import { clock } from "../../lib/times";
import { type Units, unitsStore } from "../../lib/units";
import { SameOrAnother } from "./SameOrAnother";
import { SecondOpinion } from "./SecondOpinion";
import { StepLine } from "./StepLine";
import { StepNow } from "./StepNow";
import { type PlanAsked, useSheet } from "./useSheet";

/** The run sheet: offered, then started and ticked off step by step. */
export function SheetPage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const head = useQuery(poolQuery(poolId));
  const sheet = useSheet(poolId, units);
  const [kind, setKind] = useState<"balance" | "shock" | "incident">("balance");
  const [way, setWay] = useState<ShockWay>("fixed");
  const offered = sheet.query.data?.id === null;
  const [incident, setIncident] = useState<Incident>("formed_stool");
  const asked: PlanAsked = kind === "shock" ? { shock: way } : kind === "incident" ? { incident } : {};
  const shock = useQuery({ ...shockQuery(poolId, way, units), enabled: offered && kind === "shock" });
  const after = useQuery({
    ...incidentQuery(poolId, incident, units),
    enabled: offered && kind === "incident",
  });
  const special = kind === "shock" ? shock : after;
  const zone = head.data?.settings.time_zone ?? "UTC";
  const data = sheet.query.data;
  const twiceLine = data?.steps.find(({ number }) => number === sheet.twice?.number);
  const now = data?.id
    ? data.steps.find(({ step, ticked }) => step.kind !== "wait" && ticked === null)
    : undefined;
  return (
    <>
      <Sign poolId={poolId} />
      {sheet.query.isPending && <Loading what="the sheet" />}
      {sheet.query.isError && <Failed error={sheet.query.error} again={() => void sheet.query.refetch()} />}
      {sheet.trouble !== null && (
        <Text role="alert" color="accent" fontWeight="600" mb="4">
          {sheet.trouble.message}
        </Text>
      )}
      {twiceLine !== undefined && sheet.twice !== null && (
        <SameOrAnother
          line={twiceLine}
          amount={sheet.twice.amount}
          zone={zone}
          onSame={sheet.same}
          onAnother={() => void sheet.another()}
        />
      )}
      {offered && (
        <Flex gap="5" wrap="wrap" mb="4" data-noprint>
          <PickOne label="Plan" options={PLANS} value={kind} onPick={setKind} />
          {kind === "shock" && <PickOne label="How high" options={WAYS} value={way} onPick={setWay} />}
          {kind === "incident" && (
            <PickOne label="What" options={INCIDENTS} value={incident} onPick={setIncident} />
          )}
        </Flex>
      )}
      {offered && kind !== "balance" && (
        <>
          {special.isPending && <Loading what="the plan" />}
          {special.isError && <Failed error={special.error} again={() => void special.refetch()} />}
          {special.data && (
            <SheetCard
              sheet={special.data}
              asked={asked}
              units={units}
              zone={zone}
              poolId={poolId}
              busy={sheet.busy}
              onStart={() => sheet.start(asked)}
              onUndo={sheet.undo}
            />
          )}
        </>
      )}
      {data && !(offered && kind !== "balance") && (
        <Grid
          templateColumns={{ base: "minmax(0,1fr)", lg: now ? "24rem minmax(0,1fr)" : "minmax(0,1fr)" }}
          gap="5"
          alignItems="start"
        >
          {now && (
            <StepNow
              key={now.number}
              sheet={data}
              current={now}
              zone={zone}
              units={units}
              busy={sheet.busy}
              onTick={(outcome, amount) => sheet.tick(now, outcome, amount)}
            />
          )}
          <SheetCard
            sheet={data}
            units={units}
            zone={zone}
            poolId={poolId}
            busy={sheet.busy}
            onStart={() => sheet.start({})}
            onUndo={sheet.undo}
            onPutAway={() => void sheet.putAway()}
          />
        </Grid>
      )}
      {data && <SecondOpinion poolId={poolId} units={units} />}
    </>
  );
}

function calendarFile(poolId: string, asked: PlanAsked, units: Units): string {
  const query = new URLSearchParams({ metric: String(units === "metric") });
  if (asked.shock) query.set("shock", asked.shock);
  if (asked.incident) query.set("incident", asked.incident);
  return `/api/v1/pools/${poolId}/sheet.ics?${query}`;
}

const PLANS = [
  { value: "balance", label: "What the test asks for" },
  { value: "shock", label: "Shock" },
  { value: "incident", label: "Accident in the water" },
] as const;
const INCIDENTS = [
  { value: "formed_stool", label: "Formed stool" },
  { value: "diarrhoea", label: "Diarrhoea" },
  { value: "vomit", label: "Vomit" },
  { value: "blood", label: "Blood" },
] as const;
const WAYS = [
  { value: "fixed", label: "To 10" },
  { value: "ratio", label: "40 % of stabiliser" },
] as const;

interface SheetCardProps {
  sheet: Sheet;
  asked?: PlanAsked;
  units: Units;
  zone: string;
  poolId: string;
  busy: boolean;
  onStart: () => void;
  onUndo: (entryId: string) => void;
  onPutAway?: () => void;
}

function SheetCard({ sheet, asked, units, zone, poolId, busy, onStart, onUndo, onPutAway }: SheetCardProps) {
  if (sheet.steps.length === 0) return <NothingToAdd sheet={sheet} poolId={poolId} />;
  return (
    <Card as="section" maxW="52rem">
      <Box display="flex" justifyContent="space-between" alignItems="baseline" flexWrap="wrap" gap="3" mb="4">
        <Heading as="h2" fontSize="lead">
          Run sheet
        </Heading>
        <Text color="soft" fontSize="note">
          {sheet.started_at === null ? "if you start now" : `started ${clock(sheet.started_at, zone)}`} ·{" "}
          {sheet.school_name} ranges
        </Text>
        <Flex gap="3" data-noprint>
          <SideButton onClick={() => window.print()}>Print</SideButton>
          <SideButton asChild>
            <a href={calendarFile(poolId, asked ?? {}, units)} download="run-sheet.ics">
              Calendar file
            </a>
          </SideButton>
        </Flex>
      </Box>
      <Notes sheet={sheet} />
      <Box as="ol" listStyleType="none" p="0" m="0">
        {sheet.steps.map((step) => (
          <StepLine key={step.number} line={step} zone={zone} onUndo={onUndo} />
        ))}
      </Box>
      <Left sheet={sheet} />
      {sheet.standard_shelf && (
        <Text fontSize="note" color="soft" mt="3">
          Reckoned with a standard shelf:{" "}
          <PlainLink to="/shelf">put your own products on the shelf</PlainLink>.
        </Text>
      )}
      {sheet.id !== null && onPutAway !== undefined && (
        <Flex mt="5" gap="3" align="center" wrap="wrap" data-noprint>
          <SideButton disabled={busy} onClick={onPutAway}>
            Put the rest away and reckon again
          </SideButton>
          <Text fontSize="note" color="soft">
            What was poured counts; a started sheet never changes by itself.
          </Text>
        </Flex>
      )}
      {sheet.id === null && (
        <MainButton mt="5" disabled={busy} onClick={onStart} data-noprint w={{ base: "100%", md: "auto" }}>
          Start this sheet
        </MainButton>
      )}
    </Card>
  );
}

function Notes({ sheet }: { sheet: Sheet }) {
  if (sheet.notes.length === 0) return null;
  return (
    <Box mb="4">
      {sheet.notes.map((note) => (
        <Text key={note.code} fontWeight="600" mt="1">
          {note.text}
        </Text>
      ))}
    </Box>
  );
}

function Left({ sheet }: { sheet: Sheet }) {
  if (sheet.unmet.length === 0) return null;
  return (
    <Box mt="4">
      <Text fontWeight="600">What this sheet leaves</Text>
      {sheet.unmet.map((left) => (
        <Text key={left.measure} fontSize="note">
          {left.reason}
        </Text>
      ))}
    </Box>
  );
}

function NothingToAdd({ sheet, poolId }: { sheet: Sheet; poolId: string }) {
  return (
    <Card>
      <Text fontSize="lead" fontWeight="600" mb="2">
        Nothing to add now.
      </Text>
      <Notes sheet={sheet} />
      <Left sheet={sheet} />
      <Text mt="2">
        <PlainLink to={`/pools/${poolId}/slip`}>Test the water</PlainLink> for the next sheet.
      </Text>
    </Card>
  );
}
