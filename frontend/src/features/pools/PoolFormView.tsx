import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { client, Trouble, take } from "../../api/client";
import { choicesQuery } from "../../api/queries";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PlanDrawing } from "../../components/PlanDrawing";
import { Failed, Loading } from "../../components/States";
import { FormProblem, fieldsOf, type Kit, KitForm } from "../../forms/kit";
import { trimmed, type Units, volumeText } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";
import { Dimensions } from "./Dimensions";
import { Fixtures } from "./Fixtures";
import { type PoolForm, typedBasin } from "./form";
import { KindOfPool, type Preset } from "./KindOfPool";
import { Rules } from "./Rules";

interface PoolFormViewProps {
  kit: Kit<PoolForm>;
  units: Units;
  action: string;
  /** The pool that is changed; what another kind would change in it is said first. */
  poolId?: string;
}
const { Field, Amount, Choice, Select, Either } = fieldsOf<PoolForm>();

/** What a kind of pool usually is; everything can be changed afterwards. */
function fill(kit: Kit<PoolForm>, preset: Preset) {
  const { surface, chlorination, filter, indoor, covered, school, care_preset, choices } = preset;
  const filled = { surface, chlorination, filter, indoor, covered, school, carePreset: care_preset, choices };
  for (const [name, value] of Object.entries(filled)) {
    kit.form.setValue(name as keyof typeof filled, value, { shouldDirty: true });
  }
}

/** The pool's form: name, volume with its drawing, equipment. What was typed stays until it is kept. */
export function PoolFormView({ kit, units, action, poolId }: PoolFormViewProps) {
  const choices = useQuery(choicesQuery());
  const form = kit.form.watch();
  const basin = useDebounced(typedBasin(form, units), 250);
  const preview = useQuery({
    queryKey: ["basin", basin],
    queryFn: () =>
      take(
        client.POST("/api/v1/basins/preview", {
          body: basin ?? {
            unit: "ft",
            parts: [],
            fixtures: [],
            volume: "",
            volume_unit: "gal",
            volume_is_unknown: false,
          },
        }),
      ),
    enabled: basin !== null,
    placeholderData: (before) => before,
    retry: false,
  });
  if (choices.isPending) return <Loading what="the form" />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  const refused = choices.data.refused.find(({ key }) => key === form.chlorination)?.name;
  const basinTrouble = preview.error instanceof Trouble ? preview.error : null;
  const busy = kit.form.formState.isSubmitting;
  return (
    <KitForm kit={kit}>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 24rem" }} gap="5" alignItems="start">
        <Grid gap="4">
          <KindOfPool presets={choices.data.presets} poolId={poolId} onPick={(preset) => fill(kit, preset)} />
          <Section title="The pool">
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
              <Field name="name" label="Name" />
              <Field name="place" label="Place" />
              <Select name="timeZone" server="time_zone" label="Time zone" options={zones(form.timeZone)} />
              <Amount
                name="latitude"
                server="latitude_deg"
                label="Latitude, for the sun"
                help="Empty means the time zone's chief city."
              />
              <Amount name="longitude" server="longitude_deg" label="Longitude, west is minus" />
              <Select
                name="kit"
                label="Test kit"
                options={choices.data.kits.map(({ key, name }) => ({ value: key, label: name }))}
              />
            </Grid>
            <Either name="isPublic" label="Who swims here" no="A household" yes="The public" />
            {form.isPublic && (
              <Text color="accent" fontWeight="600">
                A public pool falls under the health code and usually needs a certified operator. They decide;
                this is a helper only.
              </Text>
            )}
          </Section>
          <Section title="Volume">
            <Choice
              name="how"
              label="From"
              options={[
                { value: "dimensions", label: "Its dimensions" },
                { value: "typed", label: "A known volume" },
                { value: "unknown", label: "Not known yet" },
              ]}
            />
            {form.how === "typed" && (
              <Amount
                name="volume"
                label={`Volume, ${units === "us" ? "gallons" : "liters"} unless you write the unit`}
                problem={basinTrouble?.field === "volume" ? basinTrouble.message : null}
              />
            )}
            {form.how === "unknown" ? (
              <Text color="soft">
                Findings and swimming are judged as always. Every amount is for each{" "}
                {units === "us" ? "1,000 gal" : "1000 L"} of water, and no plan can be started until the
                volume is set.
              </Text>
            ) : (
              <Dimensions units={units} trouble={basinTrouble} />
            )}
          </Section>
          <Section title="How it is judged">
            <Rules choices={choices.data} />
          </Section>
          <Section title="What it runs on">
            <Choice name="surface" label="Surface" options={SURFACES} />
            <Choice name="chlorination" label="Sanitizer" options={SANITIZERS} />
            {refused !== undefined && (
              <Text role="alert" color="accent" fontWeight="600">
                {refused}
              </Text>
            )}
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
          <FormProblem />
          <MainButton type="submit" disabled={busy || refused !== undefined} justifySelf={{ md: "start" }}>
            {busy ? "Saving …" : action}
          </MainButton>
        </Grid>
        <Card as="aside" aria-label="Volume and plan" position={{ lg: "sticky" }} top="4">
          <Text fontSize="note" color="soft">
            Volume in use
          </Text>
          <Text fontSize="2rem" fontWeight="750" lineHeight="1.2" data-testid="volume">
            {preview.data && basin !== null && form.how !== "unknown"
              ? volumeText(preview.data.volume_l, units)
              : "–"}
          </Text>
          <Text fontSize="note" color="soft" mb="3">
            {preview.data?.mean_depth_m && basin !== null
              ? `mean depth ${units === "us" ? `${trimmed(preview.data.mean_depth_m / 0.3048, 1)} ft` : `${trimmed(preview.data.mean_depth_m, 2)} m`}`
              : form.how === "unknown"
                ? "not known yet"
                : "appears when the dimensions are complete"}
          </Text>
          {preview.data?.drawing && (
            <>
              <PlanDrawing plan={preview.data.drawing} units={units} show="sample" />
              <Fixtures />
            </>
          )}
        </Card>
      </Grid>
    </KitForm>
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

const SURFACES = [
  { value: "plaster", label: "Plaster" },
  { value: "tile", label: "Tile" },
  { value: "painted", label: "Painted" },
  { value: "vinyl", label: "Vinyl" },
  { value: "fibreglass", label: "Fiberglass" },
] as const;
const SANITIZERS = [
  { value: "liquid", label: "Liquid chlorine" },
  { value: "granules", label: "Granules" },
  { value: "tablets", label: "Tablets" },
  { value: "salt_cell", label: "Salt cell" },
  { value: "mineral", label: "Mineral and chlorine" },
  { value: "bromine", label: "Bromine" },
  { value: "biguanide", label: "Biguanide" },
  { value: "spa", label: "It is a spa" },
] as const;
const FILTERS = [
  { value: "sand", label: "Sand" },
  { value: "cartridge", label: "Cartridge" },
  { value: "de", label: "DE" },
] as const;
