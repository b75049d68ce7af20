import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { useFormContext, useWatch } from "react-hook-form";
import { choicesQuery } from "../../api/queries";
import type { Choices } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { FormProblem, fieldsOf, type Kit, KitForm, useSaving } from "../../forms/kit";
import type { Units } from "../../lib/units";
import type { PoolForm } from "./form";
import { KindOfPool, type Preset } from "./KindOfPool";
import { Rules } from "./Rules";
import { Size } from "./Size";
import { useVolume } from "./useVolume";
import { VolumeCard } from "./VolumeCard";
import { FILTERS, SANITIZERS, SURFACES } from "./words";

interface PoolFormViewProps {
  kit: Kit<PoolForm>;
  units: Units;
  action: string;
  /** The pool that is changed; what another kind would change in it is said first. */
  poolId?: string;
}
const { Field, Amount, Choice, Select, Either } = fieldsOf<PoolForm>();

/** What a kind of pool usually is; everything can be changed afterwards. */
export function fill(kit: Kit<PoolForm>, preset: Preset) {
  const { surface, chlorination, filter, indoor, covered, school, care_preset, choices } = preset;
  const filled = { surface, chlorination, filter, indoor, covered, school, carePreset: care_preset, choices };
  for (const [name, value] of Object.entries(filled)) {
    kit.form.setValue(name as keyof typeof filled, value, { shouldDirty: true });
  }
}

/** The pool's form: name, volume with its drawing, equipment. What was typed stays until it is kept. */
export function PoolFormView({ kit, units, action, poolId }: PoolFormViewProps) {
  const choices = useQuery(choicesQuery());
  if (choices.isPending) return <Loading what="the form" />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  return (
    <KitForm kit={kit}>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 24rem" }} gap="5" alignItems="start">
        <Grid gap="4">
          <KindOfPool presets={choices.data.presets} poolId={poolId} onPick={(preset) => fill(kit, preset)} />
          <Section title="The pool">
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
              <Field name="name" label="Name" />
              <Field name="place" label="Place" />
              <Select
                name="kit"
                label="Test kit"
                options={choices.data.kits.map(({ key, name }) => ({ value: key, label: name }))}
              />
            </Grid>
            <Either name="isPublic" label="Who swims here" no="A household" yes="The public" />
            <OfThePublic />
          </Section>
          <Section title="Volume">
            <SizeAsTyped units={units} steps={choices.data.salt_steps} />
          </Section>
          <Section title="How it is judged">
            <Rules choices={choices.data} />
          </Section>
          <Section title="What it runs on">
            <Choice name="surface" label="Surface" options={SURFACES} />
            <Choice name="chlorination" label="Sanitizer" options={SANITIZERS} />
            <Refused choices={choices.data} />
            <Choice name="filter" label="Filter" options={FILTERS} />
            <Either name="indoor" label="Where" no="Outdoors" yes="Indoors" />
            <Either name="covered" label="Between swims" no="Open" yes="Under a cover" />
            <Either
              name="spaApart"
              label="A spa that its valves can close off"
              no="None"
              yes="There is one"
            />
            <Grid templateColumns={{ base: "1fr", md: "repeat(3, 1fr)" }} gap="4">
              <Amount name="fillPh" server={["fill_ph", "fill_water.ph"]} label="Fill water pH" />
              <Amount
                name="fillAlkalinity"
                server={["fill_alkalinity", "fill_water.total_alkalinity"]}
                label="Fill water alkalinity"
              />
              <Amount
                name="fillCalcium"
                server={["fill_calcium", "fill_water.calcium_hardness"]}
                label="Fill water calcium"
              />
            </Grid>
          </Section>
          <Section title="Where it lies">
            <TimeZone />
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
              <Amount
                name="latitude"
                server="latitude_deg"
                label="Latitude, for the sun"
                help="Empty means the time zone's chief city."
              />
              <Amount name="longitude" server="longitude_deg" label="Longitude, west is minus" />
            </Grid>
          </Section>
          <FormProblem />
          <Send choices={choices.data} action={action} />
        </Grid>
        <VolumeAsTyped units={units} />
      </Grid>
    </KitForm>
  );
}

// Each part below watches what it shows by itself: of a hundred fields a key draws its own again, and no other.

const useTyped = () => useWatch<PoolForm>() as PoolForm;

function SizeAsTyped({ units, steps }: { units: Units; steps: readonly string[] }) {
  const { trouble } = useVolume(useTyped(), units);
  return <Size units={units} trouble={trouble} steps={steps} />;
}

function VolumeAsTyped({ units }: { units: Units }) {
  const { found } = useVolume(useTyped(), units);
  return <VolumeCard found={found} units={units} />;
}

function TimeZone() {
  const { getValues } = useFormContext<PoolForm>();
  const [options] = useState(() => zones(getValues("timeZone")));
  return <Select name="timeZone" server="time_zone" label="Time zone" options={options} />;
}

function OfThePublic() {
  if (!useWatch<PoolForm, "isPublic">({ name: "isPublic" })) return null;
  return (
    <Text color="accent" fontWeight="600">
      A public pool falls under the health code and usually needs a certified operator. They decide; this is a
      helper only.
    </Text>
  );
}

/** Why a sanitizer is none that this is for; undefined for any other. */
function useRefused(choices: Choices): string | undefined {
  const chlorination = useWatch<PoolForm, "chlorination">({ name: "chlorination" });
  return choices.refused.find(({ key }) => key === chlorination)?.name;
}

function Refused({ choices }: { choices: Choices }) {
  const refused = useRefused(choices);
  if (refused === undefined) return null;
  return (
    <Text role="alert" color="accent" fontWeight="600">
      {refused}
    </Text>
  );
}

function Send({ choices, action }: { choices: Choices; action: string }) {
  const refused = useRefused(choices);
  const busy = useSaving();
  return (
    <MainButton type="submit" disabled={busy || refused !== undefined} justifySelf={{ md: "start" }}>
      {busy ? "Saving …" : action}
    </MainButton>
  );
}

function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="4">
        {title}
      </Heading>
      <Grid gap="4">{children}</Grid>
    </Card>
  );
}

function zones(current: string) {
  const known = Intl.supportedValuesOf("timeZone");
  return [...new Set([current, ...known])].map((zone) => ({ value: zone, label: zone.replaceAll("_", " ") }));
}
