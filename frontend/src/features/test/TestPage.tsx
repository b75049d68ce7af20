import { Box, chakra, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import {
  type ComponentProps,
  memo,
  type RefObject,
  useDeferredValue,
  useEffect,
  useRef,
  useState,
} from "react";
import { useNavigate, useParams, useSearchParams } from "react-router";
import { choicesQuery, lastValuesQuery, logQuery, planQuery, poolQuery } from "../../api/queries";
import type { Choices, LogLine, Measure, PoolHeaderData } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { MainAction } from "../../components/MainAction";
import { notify } from "../../components/notice";
import { TakePhoto } from "../../components/Photos";
import { PlanDrawing } from "../../components/PlanDrawing";
import { PoolHeader } from "../../components/PoolHeader";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { FormProblem, fieldsOf, KitForm, useSaving } from "../../forms/kit";
import { coming } from "../../lib/coming";
import { activeRoundStore, stopsOf } from "../../lib/round";
import { plainStore, type Store, useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { visitStore } from "../../lib/visit";
import { KitOrder } from "./KitOrder";
import { type LineState, QuickLine } from "./QuickLine";
import { TestFields } from "./TestFields";
import { type Fields, type TestDraft, useReading, useTestForm } from "./useTestForm";
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
  const last = useQuery({ ...lastValuesQuery(poolId, units), enabled: corrects === null });
  const plan = useQuery(planQuery(poolId));
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  if (head.isError) return <Failed error={head.error} again={() => void head.refetch()} />;
  const ready =
    choices.data !== undefined &&
    head.data !== undefined &&
    (corrects === null || log.data !== undefined) &&
    !coming(last, plan);
  return (
    <>
      <PoolHeader poolId={poolId} />
      {!ready && <Loading what="the test" />}
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

const { Field } = fieldsOf<TestDraft>();

interface SlipProps {
  head: PoolHeaderData;
  choices: Choices;
  units: Units;
  corrects: LogLine | null;
}

function Slip({ head, choices, units, corrects }: SlipProps) {
  const navigate = useNavigate();
  const [kitKey, setKitKey] = useState(head.settings.kit);
  const usual = choices.kits.find((known) => known.key === kitKey)?.order ?? NO_ORDER;
  const own = head.settings.kit_order;
  const order = own.length > 0 ? own : usual;
  const last = useQuery({ ...lastValuesQuery(head.id, units), enabled: corrects === null });
  const stops = stopsOf(useStore(activeRoundStore));
  const onRound = stops.some(({ id }) => id === head.id);
  // Not a state of this page: with the first key of the line all of it would be drawn again.
  const [line] = useState(() => plainStore<LineState>("empty"));
  const toSave = useRef(false);

  const slip = useTestForm({
    poolId: head.id,
    kitKey,
    units,
    corrects: corrects?.id ?? null,
    start: corrects === null ? {} : corrects.fields,
    ready: () => {
      const waits = line.get() === "typed";
      if (waits)
        notify("The quick line is not in the fields yet: press Enter in it, or empty it, then save.");
      return !waits;
    },
    onSaved: (waits) => {
      notify(
        waits
          ? "Kept on this device; it is sent when the server answers."
          : corrects === null
            ? "Saved. It stands in the log."
            : "Corrected. The old values stay in the log.",
      );
      const onVisit = visitStore.get() === head.id;
      const next = onVisit
        ? `/pools/${head.id}/visit`
        : onRound
          ? `/pools/${head.id}/plan`
          : `/pools/${head.id}`;
      void navigate(corrects === null ? next : `/pools/${head.id}/log`);
    },
  });
  const { form } = slip.kit;

  /** What is still empty, as it read last; only what was in the last test's kit. */
  function sameAsLast(): Fields {
    const filled: Fields = { ...form.getValues("fields") };
    for (const measure of order) {
      const before = last.data?.[measure]?.text;
      if ((filled[measure] ?? "") === "" && before !== undefined) filled[measure] = before;
    }
    return filled;
  }

  return (
    <KitForm kit={slip.kit}>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 20rem" }} gap="5" alignItems="start">
        <Box>
          {corrects === null ? (
            <VisualCheckCard poolId={head.id} />
          ) : (
            <Heading as="h2" fontSize="lead">
              Correct a test
            </Heading>
          )}
          <Flex gap="2" mt="3" mb="1" align="start">
            <Box flex="1" minW="0">
              <QuickLine
                read={slip.readLine}
                onState={line.set}
                onFields={(fields) => form.setValue("fields", { ...form.getValues("fields"), ...fields })}
                onDone={() => {
                  toSave.current = true;
                }}
              />
            </Box>
            <Box w="9rem" flexShrink="0">
              <SelectField
                label="Kit"
                labelHidden
                value={kitKey}
                options={choices.kits.map((known) => ({ value: known.key, label: known.name }))}
                onPick={setKitKey}
              />
            </Box>
          </Flex>
          <ReadFields
            poolId={head.id}
            kitKey={kitKey}
            order={order}
            choices={choices}
            last={last.data ?? NOTHING}
            zone={head.settings.time_zone}
            units={units}
          />
          {corrects === null && Object.keys(last.data ?? {}).length > 0 && (
            <SideButton mt="3" onClick={() => form.setValue("fields", sameAsLast())}>
              All the rest same as last
            </SideButton>
          )}
          <Besides
            head={head}
            kit={kitKey}
            usual={usual}
            order={order}
            choices={choices}
            correcting={corrects !== null}
          />
          <Box mt="4">
            <FormProblem shown={[...order, ...Object.keys(form.getValues("fields")), "note", "at"]} />
          </Box>
          <MainAction>
            <Save line={line} toSave={toSave} label={onRound ? "Save, on to the plan" : "Save the test"} />
          </MainAction>
        </Box>
        <WhereToSample poolId={head.id} units={units} />
      </Grid>
    </KitForm>
  );
}

interface SaveProps {
  line: Store<LineState>;
  /** Set where all of the line was understood: the keys go on here. */
  toSave: RefObject<boolean>;
  label: string;
}

function Save({ line, toSave, label }: SaveProps) {
  const now = useStore(line);
  const saving = useSaving();
  const button = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (!toSave.current || now !== "empty") return;
    toSave.current = false;
    button.current?.focus(); // all of the line stands in the fields, and the button is enabled again
  }, [now, toSave]);
  return (
    <MainButton
      type="submit"
      ref={button}
      disabled={saving || now === "reading"}
      w={{ base: "100%", lg: "auto" }}
    >
      {saving ? "Saving …" : label}
    </MainButton>
  );
}

const NOTHING = {};

interface ReadFieldsProps extends Omit<ComponentProps<typeof TestFields>, "problems" | "doubts"> {
  poolId: string;
  kitKey: string;
}

const NO_ORDER: readonly Measure[] = [];
const NONE: readonly never[] = [];
const Told = memo(TestFields);

/** The fields with what the server says of them; the page around is not drawn anew by each key. */
const ReadFields = memo(function ReadFields({ poolId, kitKey, ...fields }: ReadFieldsProps) {
  // Drawn between two keys, not before the next one: what is said of the fields waits for who types.
  const read = useDeferredValue(useReading(poolId, kitKey, fields.units));
  return <Told {...fields} problems={read?.problems ?? NONE} doubts={read?.doubts ?? NONE} />;
});

interface BesidesProps extends ComponentProps<typeof KitOrder> {
  correcting: boolean;
}

/** What is needed now and then, folded away. */
const Besides = memo(function Besides({ correcting, ...kit }: BesidesProps) {
  return (
    <chakra.details mt="3" open={correcting || undefined}>
      <chakra.summary cursor="pointer" minH="44px" lineHeight="44px" fontWeight="600">
        Note, time, photo, order of the fields
      </chakra.summary>
      <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4" mt="2">
        <Field name="note" label="Note" />
        <Field name="at" label="When, if not just now" type="datetime-local" />
      </Grid>
      {!correcting && (
        <>
          <Box mt="4">
            <TakePhoto poolId={kit.head.id} shows="look" />
          </Box>
          <KitOrder key={`${kit.kit}${kit.head.settings.kit_order.join()}`} {...kit} />
        </>
      )}
    </chakra.details>
  );
});

const WhereToSample = memo(function WhereToSample({ poolId, units }: { poolId: string; units: Units }) {
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
});
