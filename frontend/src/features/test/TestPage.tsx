import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { choicesQuery, lastValuesQuery, logQuery, planQuery, poolQuery } from "../../api/queries";
import type { Choices, LogLine, PoolHeaderData } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PlanDrawing } from "../../components/PlanDrawing";
import { PoolHeader } from "../../components/PoolHeader";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { activeRoundStore, stopsOf } from "../../lib/round";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { KitOrder } from "./KitOrder";
import { type LineState, QuickLine } from "./QuickLine";
import { TestFields } from "./TestFields";
import { type Fields, useTestForm } from "./useTestForm";
import { VisualCheckCard } from "./VisualCheckCard";

/** Look, then test: entered on one compact strip in the order of the user's own kit. */
export function TestPage() {
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
      <PoolHeader poolId={poolId} />
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
  head: PoolHeaderData;
  choices: Choices;
  units: Units;
  corrects: LogLine | null;
}

function Slip({ head, choices, units, corrects }: SlipProps) {
  const navigate = useNavigate();
  const [kit, setKit] = useState(head.settings.kit);
  const start: Fields = corrects === null ? {} : corrects.fields;
  const slip = useTestForm(head.id, kit, units, corrects?.id ?? null, start);
  const { draft, change } = slip;
  const usual = choices.kits.find((known) => known.key === kit)?.order ?? [];
  const own = head.settings.kit_order;
  const order = own.length > 0 ? own : usual;
  const last = useQuery({ ...lastValuesQuery(head.id, units), enabled: corrects === null });
  const stops = stopsOf(useStore(activeRoundStore));
  const onRound = stops.some(({ id }) => id === head.id);
  const saveButton = useRef<HTMLButtonElement>(null);
  const [line, setLine] = useState<LineState>("empty");

  /** What is still empty, as it read last; only what was in the last test's kit. */
  function sameAsLast(): Fields {
    const filled: Fields = { ...draft.fields };
    for (const measure of order) {
      const before = last.data?.[measure]?.text;
      if ((filled[measure] ?? "") === "" && before !== undefined) filled[measure] = before;
    }
    return filled;
  }

  async function save() {
    if (line === "typed") {
      notify("The quick line is not in the fields yet: press Enter in it, or empty it, then save.");
      return;
    }
    if (await slip.save()) {
      notify(
        corrects === null ? "Saved. It stands in the log." : "Corrected. The old values stay in the log.",
      );
      const next = onRound ? `/pools/${head.id}/sheet` : `/pools/${head.id}`;
      navigate(corrects === null ? next : `/pools/${head.id}/log`);
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
        <Grid gap="4" templateColumns="minmax(0,1fr)">
          {corrects === null && <VisualCheckCard draft={draft} change={change} poolId={head.id} />}
          <Card as="section">
            <Flex justify="space-between" align="end" gap="4" wrap="wrap" mb="4">
              <Heading as="h2" fontSize="lead">
                {corrects === null ? "Test" : "Correct a test"}
              </Heading>
              <Box w="12rem" maxW="100%">
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
              onDone={() => saveButton.current?.focus()}
            />
            <TestFields
              order={order}
              choices={choices}
              fields={draft.fields}
              last={last.data ?? {}}
              zone={head.settings.time_zone}
              units={units}
              problems={slip.read?.problems ?? []}
              doubts={slip.read?.doubts ?? []}
              failed={slip.trouble}
              onField={(measure, text) => change({ ...draft, fields: { ...draft.fields, [measure]: text } })}
            />
            {corrects === null && Object.keys(last.data ?? {}).length > 0 && (
              <SideButton mt="4" onClick={() => change({ ...draft, fields: sameAsLast() })}>
                All the rest same as last
              </SideButton>
            )}
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
              ref={saveButton}
              mt="4"
              disabled={slip.saving || line === "reading"}
              w={{ base: "100%", md: "auto" }}
            >
              {slip.saving ? "Saving …" : onRound ? "Save, on to the sheet" : "Save and read the board"}
            </MainButton>
            {corrects === null && (
              <KitOrder
                key={`${kit}${own.join()}`}
                head={head}
                kit={kit}
                usual={usual}
                order={order}
                choices={choices}
              />
            )}
          </Card>
        </Grid>
        <WhereToSample poolId={head.id} units={units} />
      </Grid>
    </form>
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
