import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useInfiniteQuery, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef } from "react";
import { useSearchParams } from "react-router";
import { Trouble } from "../../api/client";
import { poolPagesQuery } from "../../api/poolPages";
import { choicesQuery, inventoryQuery } from "../../api/queries";
import type { Choices } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { MainAction } from "../../components/MainAction";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { FormProblem, fieldsOf, type Kit, KitForm } from "../../forms/kit";
import { useStore } from "../../lib/store";
import { type Units, unitsStore, volumeText } from "../../lib/units";
import type { PoolForm } from "./form";
import { KindList } from "./KindList";
import { PlaceStep } from "./PlaceStep";
import { fill } from "./PoolFormView";
import { ShelfStep } from "./ShelfStep";
import { Size } from "./Size";
import { requireBasin, useNewPool } from "./useNewPool";
import { basinQuery, useVolume } from "./useVolume";
import { VolumeCard } from "./VolumeCard";
import { takenAs } from "./words";

const STEPS = ["kind", "size", "place", "kit", "shelf"] as const;
type StepName = (typeof STEPS)[number];
const TITLES: Record<StepName, string> = {
  kind: "What kind of pool is it?",
  size: "How large is it?",
  place: "Where is it?",
  kit: "What do you test with?",
  shelf: "What is on the shelf?",
};
const { Choice } = fieldsOf<PoolForm>();

/** A new pool in five questions; all else is taken as usual, said so, and changed whenever one likes. */
export function GuidedPage() {
  const choices = useQuery(choicesQuery());
  const units = useStore(unitsStore);
  const shelf = useQuery(inventoryQuery(units));
  useEffect(() => {
    document.title = "Set up a pool · Kumpan";
  }, []);
  if (choices.isPending || shelf.isPending) return <Loading what="the questions" />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  // Who has products told already is not asked again.
  const steps = STEPS.filter((step) => step !== "shelf" || (shelf.data ?? []).length === 0);
  return <Guided choices={choices.data} steps={steps} units={units} />;
}

interface GuidedProps {
  choices: Choices;
  steps: readonly StepName[];
  units: Units;
}

function Guided({ choices, steps, units }: GuidedProps) {
  const kit = useNewPool(units, choices);
  const form = kit.form.watch();
  const { found, trouble } = useVolume(form, units);
  const [search, setSearch] = useSearchParams();
  const at = steps.find((step) => step === search.get("at")) ?? "kind";
  const number = steps.indexOf(at);
  const last = number === steps.length - 1;
  const go = (step: StepName) => setSearch({ at: step });
  const next = () => {
    const after = steps[number + 1];
    if (after !== undefined) go(after);
  };
  useJumpToFault(kit, at, go);
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (number > 0) title.current?.focus();
    window.scrollTo(0, 0);
  }, [number]);
  const queries = useQueryClient();
  const onward = async () => {
    kit.form.clearErrors();
    if (last) return kit.save();
    if (at === "size") {
      try {
        const basin = requireBasin(kit.form.getValues(), units);
        // Who types faster than the volume is found is not sent on with a size that cannot be.
        if (!basin.volume_is_unknown) await queries.fetchQuery(basinQuery(basin));
      } catch (error) {
        if (error instanceof Trouble && /^volume|^parts/.test(error.field ?? "")) return; // it stands at its field
        return kit.form.setError("root.server", { type: "", message: (error as Error).message });
      }
      if (form.name.trim() === "") kit.form.setValue("name", nameless);
    }
    next();
  };
  const nameless = useNameless();
  const busy = kit.form.formState.isSubmitting;
  return (
    <KitForm kit={{ ...kit, save: onward }} aria-label="Set up a pool" style={{ minHeight: "60vh" }}>
      <Text color="soft">
        Set up a pool · {number + 1} of {steps.length}
      </Text>
      <Heading as="h1" fontSize="title" mb="3" ref={title} tabIndex={-1} outline="none">
        {TITLES[at]}
      </Heading>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 24rem" }} gap="5" alignItems="start">
        <Grid gap="4">
          {at === "kind" && (
            <KindList
              choices={choices}
              onPick={(preset) => {
                fill(kit, preset);
                kit.form.setValue("kind", preset.key);
                next();
              }}
            />
          )}
          {at === "size" && (
            <Card as="section" aria-label="Size">
              <Grid gap="4">
                <Size units={units} trouble={trouble} steps={choices.salt_steps} />
              </Grid>
            </Card>
          )}
          {at === "place" && <PlaceStep />}
          {at === "kit" && (
            <Card as="section" aria-label="Test kit">
              <Choice
                name="kit"
                label="Its order becomes the order of your test form"
                options={choices.kits
                  .filter(({ key }) => key !== "unit")
                  .map(({ key, name }) => ({ value: key, label: name }))}
              />
            </Card>
          )}
          {at === "shelf" && <ShelfStep chemicals={choices.chemicals} />}
          <FormProblem />
          {at !== "kind" && (
            <MainAction>
              <MainButton type="submit" disabled={busy} w={{ base: "100%", lg: "auto" }}>
                {busy ? "Saving …" : last ? "Set up, then test the water" : "Next"}
              </MainButton>
            </MainAction>
          )}
        </Grid>
        <Grid gap="4">
          {number > 0 && <SoFar form={form} steps={steps} number={number} choices={choices} go={go} />}
          {at === "size" && form.how !== "unknown" && <VolumeCard found={found} units={units} />}
          {number > 1 && found && (
            <Text color="soft" fontSize="note">
              Volume in use {volumeText(found.volume_l, units)}
            </Text>
          )}
        </Grid>
      </Grid>
    </KitForm>
  );
}

/** What a pool is called until somebody names it: no two of them alike. */
function useNameless(): string {
  const pools = useInfiniteQuery(poolPagesQuery("", "attention", "all"));
  const there = pools.data?.pages[0]?.counts.all ?? 0;
  return there === 0 ? "My pool" : `Pool ${there + 1}`;
}

/** What the server refused stands at its field: the step that has it is opened. */
function useJumpToFault(kit: Kit<PoolForm>, at: StepName, go: (step: StepName) => void) {
  const field = String(kit.form.formState.errors.root?.server?.type ?? "");
  const step = stepOf(field);
  const jump = step !== null && step !== at ? step : null;
  const seen = useRef("");
  useEffect(() => {
    if (jump === null || seen.current === field) return;
    seen.current = field;
    go(jump);
  }, [jump, field, go]);
}

function stepOf(field: string): StepName | null {
  if (/^basin|^parts|^volume/.test(field)) return "size";
  if (/name|place|time_zone|latitude|longitude/.test(field)) return "place";
  return null;
}

interface SoFarProps {
  form: PoolForm;
  steps: readonly StepName[];
  number: number;
  choices: Choices;
  go: (step: StepName) => void;
}

/** The answers so far, each a tap from being changed, and what is taken as usual. */
function SoFar({ form, steps, number, choices, go }: SoFarProps) {
  const kind = choices.presets.find(({ key }) => key === form.kind);
  const kit = choices.kits.find(({ key }) => key === form.kit);
  const answers: Partial<Record<StepName, string>> = {
    kind: kind?.name ?? "By hand",
    place: [form.name, form.place].filter(Boolean).join(", "),
    kit: kit?.name ?? "",
  };
  const shown = steps.slice(0, number).filter((step) => answers[step]);
  return (
    <Card as="section" aria-label="So far">
      {shown.map((step) => (
        <Flex key={step} justify="space-between" align="center" gap="3">
          <Text fontWeight="600">{answers[step]}</Text>
          <Box
            as="button"
            // A button inside a form sends it unless it says otherwise.
            {...{ type: "button" }}
            minH="44px"
            color="rope"
            fontWeight="600"
            textDecoration="underline"
            cursor="pointer"
            aria-label={`Change: ${TITLES[step]}`}
            onClick={() => go(step)}
          >
            Change
          </Box>
        </Flex>
      ))}
      {kind?.warns && <Caution>{kind.warns}</Caution>}
      {kind?.says.map((line) => (
        <Text key={line} mt="1">
          {line}
        </Text>
      ))}
      <Text mt="3" fontSize="note" color="soft">
        Taken as usual until you say otherwise: {takenAs(form)}.{" "}
        <PlainLink to="/pools/new/all">Change any of it</PlainLink>
      </Text>
    </Card>
  );
}
