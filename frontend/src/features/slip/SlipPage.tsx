import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { choicesQuery, logQuery, planQuery, poolQuery } from "../../api/queries";
import type { Choices, LogLine, Measure, PoolHead } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PlanDrawing } from "../../components/PlanDrawing";
import { SelectField } from "../../components/SelectField";
import { Sign } from "../../components/Sign";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { LookCard } from "./LookCard";
import { type LineState, QuickLine } from "./QuickLine";
import { type Fields, useSlip } from "./useSlip";

/** Look, then test: entered on one compact strip in the order of the user's own kit. */
export function SlipPage() {
  const { poolId = "" } = useParams();
  const [search] = useSearchParams();
  const corrects = search.get("correct");
  const units = useStore(unitsStore);
  const choices = useQuery(choicesQuery());
  const head = useQuery(poolQuery(poolId));
  const log = useQuery({ ...logQuery(poolId, units), enabled: corrects !== null });
  const line = log.data?.find((entry) => entry.id === corrects);
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  if (head.isError) return <Failed error={head.error} again={() => void head.refetch()} />;
  const ready =
    choices.data !== undefined && head.data !== undefined && (corrects === null || log.data !== undefined);
  return (
    <>
      <Sign poolId={poolId} />
      {!ready && <Loading what="the slip" />}
      {choices.data && head.data && ready && (
        <Slip
          key={corrects ?? poolId}
          head={head.data}
          choices={choices.data}
          units={units}
          corrects={line ?? null}
        />
      )}
    </>
  );
}

interface SlipProps {
  head: PoolHead;
  choices: Choices;
  units: Units;
  corrects: LogLine | null;
}

function Slip({ head, choices, units, corrects }: SlipProps) {
  const navigate = useNavigate();
  const [kit, setKit] = useState(head.settings.kit);
  const start: Fields = corrects === null ? {} : corrects.fields;
  const slip = useSlip(head.id, kit, units, corrects?.id ?? null, start);
  const { draft, change } = slip;
  const order = choices.kits.find((known) => known.key === kit)?.order ?? [];
  const [line, setLine] = useState<LineState>("empty");

  async function save() {
    if (line === "typed") {
      notify("The quick line is not in the fields yet: press Enter in it, or empty it, then save.");
      return;
    }
    if (await slip.save()) {
      notify(
        corrects === null ? "Saved. It stands in the log." : "Corrected. The old values stay in the log.",
      );
      navigate(corrects === null ? `/pools/${head.id}` : `/pools/${head.id}/log`);
    }
  }

  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void save();
      }}
    >
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 20rem" }} gap="5" alignItems="start">
        <Grid gap="4">
          {corrects === null && <LookCard draft={draft} change={change} />}
          <Card as="section">
            <Flex justify="space-between" align="end" gap="4" wrap="wrap" mb="4">
              <Heading as="h2" fontSize="lead">
                {corrects === null ? "Test" : "Correct a test"}
              </Heading>
              <Box w="12rem">
                <SelectField
                  label="Kit"
                  value={kit}
                  options={choices.kits.map((known) => ({ value: known.key, label: known.name }))}
                  onPick={setKit}
                />
              </Box>
            </Flex>
            <QuickLine
              read={slip.readLine}
              onState={setLine}
              onFields={(fields) => change({ ...draft, fields: { ...draft.fields, ...fields } })}
            />
            <SlipFields
              order={order}
              choices={choices}
              fields={draft.fields}
              units={units}
              problems={slip.read?.problems ?? []}
              doubts={slip.read?.doubts ?? []}
              failed={slip.trouble}
              onField={(measure, text) => change({ ...draft, fields: { ...draft.fields, [measure]: text } })}
            />
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4" mt="4">
              <TextField label="Note" value={draft.note} onText={(note) => change({ ...draft, note })} />
              <TextField
                label="When, if not just now"
                type="datetime-local"
                value={draft.at}
                onText={(at) => change({ ...draft, at })}
              />
            </Grid>
            {slip.trouble !== null && slip.trouble.field === null && (
              <Text role="alert" color="accent" fontWeight="600" mt="4">
                {slip.trouble.message}
              </Text>
            )}
            {slip.trouble?.field === "fields" && (
              <Text role="alert" color="accent" fontWeight="600" mt="4">
                {slip.trouble.message}
              </Text>
            )}
            <MainButton
              type="submit"
              mt="4"
              disabled={slip.saving || line === "reading"}
              w={{ base: "100%", md: "auto" }}
            >
              {slip.saving ? "Saving …" : "Save and read the board"}
            </MainButton>
          </Card>
        </Grid>
        <WhereToSample poolId={head.id} units={units} />
      </Grid>
    </form>
  );
}

interface Problem {
  text: string;
  measure?: Measure | null;
}

interface SlipFieldsProps {
  order: readonly Measure[];
  choices: Choices;
  fields: Fields;
  units: Units;
  problems: readonly Problem[];
  doubts: readonly { text: string; measure?: string | null | undefined }[];
  failed: { message: string; field: string | null } | null;
  onField: (measure: Measure, text: string) => void;
}

function SlipFields({ order, choices, fields, units, problems, doubts, failed, onField }: SlipFieldsProps) {
  const nameOf = (measure: Measure) =>
    choices.measures.find((known) => known.key === measure)?.name ?? measure;
  const extra = (Object.keys(fields) as Measure[]).filter((measure) => !order.includes(measure));
  return (
    <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(4, 1fr)" }} gap="4" mt="4" alignItems="start">
      {[...order, ...extra].map((measure) => {
        const problem = problems.find((found) => found.measure === measure)?.text;
        const doubt = doubts.find((found) => found.measure === measure)?.text;
        const refused = failed?.field === measure ? failed.message : undefined;
        return (
          <Box key={measure}>
            <TextField
              label={
                measure === "temperature_c" ? `Temperature, ${units === "us" ? "°F" : "°C"}` : nameOf(measure)
              }
              inputMode="decimal"
              name={measure}
              value={fields[measure] ?? ""}
              problem={problem ?? refused}
              onText={(text) => onField(measure, text)}
            />
            {doubt !== undefined && problem === undefined && (
              <Text fontSize="note" mt="1" borderLeft="3px solid" borderColor="rope" pl="2" role="status">
                {doubt}
              </Text>
            )}
          </Box>
        );
      })}
    </Grid>
  );
}

function WhereToSample({ poolId, units }: { poolId: string; units: Units }) {
  const plan = useQuery(planQuery(poolId));
  return (
    <Card as="aside">
      <Heading as="h2" fontSize="lead" mb="2">
        Where to sample
      </Heading>
      {plan.data && <PlanDrawing plan={plan.data} units={units} show="sample" />}
      <Text fontSize="note" mt="3">
        Pump on for 10 minutes. Elbow-deep, away from returns and skimmer. A clean bottle rinsed in pool
        water, mouth down, lower, turn, raise. Test at once.
      </Text>
    </Card>
  );
}
