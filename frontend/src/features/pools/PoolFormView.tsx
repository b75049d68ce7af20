import { Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { choicesQuery } from "../../api/queries";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { PlanDrawing } from "../../components/PlanDrawing";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { trimmed, type Units, volumeText } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";
import { Dimensions } from "./Dimensions";
import { Fixtures } from "./Fixtures";
import { type PoolForm, typedBasin } from "./form";
import { Rules } from "./Rules";

interface PoolFormViewProps {
  form: PoolForm;
  change: (form: PoolForm) => void;
  units: Units;
  action: string;
  save: () => Promise<void>;
}

/** The pool's form: name, volume with its drawing, equipment. What was typed stays until it is kept. */
export function PoolFormView({ form, change, units, action, save }: PoolFormViewProps) {
  const choices = useQuery(choicesQuery());
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const basin = useDebounced(typedBasin(form, units), 250);
  const preview = useQuery({
    queryKey: ["basin", basin],
    queryFn: () =>
      take(
        client.POST("/api/v1/basins/preview", {
          body: basin ?? { unit: "ft", parts: [], fixtures: [], volume: "", volume_unit: "gal" },
        }),
      ),
    enabled: basin !== null,
    placeholderData: (before) => before,
    retry: false,
  });
  if (choices.isPending) return <Loading what="the form" />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  const set = (part: Partial<PoolForm>) => change({ ...form, ...part });
  const refused = choices.data.refused.find((kind) => kind.key === form.chlorination)?.name;
  const basinTrouble = preview.error instanceof Trouble ? preview.error : null;

  async function submit() {
    setBusy(true);
    setTrouble(null);
    try {
      await save();
    } catch (error) {
      setTrouble(
        error instanceof Trouble
          ? error
          : new Trouble(error instanceof Error ? error.message : String(error), null, 0),
      );
    } finally {
      setBusy(false);
    }
  }

  const problem = (field: string) =>
    trouble?.field === field || trouble?.field?.endsWith(`.${field}`) ? trouble.message : null;
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void submit();
      }}
    >
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 24rem" }} gap="5" alignItems="start">
        <Grid gap="4">
          <Section title="The pool">
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
              <TextField
                label="Name"
                name="name"
                value={form.name}
                problem={problem("name")}
                onText={(name) => set({ name })}
              />
              <TextField label="Place" value={form.place} onText={(place) => set({ place })} />
              <SelectField
                label="Time zone"
                value={form.timeZone}
                options={zones(form.timeZone)}
                onPick={(timeZone) => set({ timeZone })}
                problem={problem("time_zone")}
              />
              <TextField
                label="Latitude, for the sun"
                help="Empty means the time zone's chief city."
                inputMode="decimal"
                value={form.latitude}
                problem={problem("latitude_deg")}
                onText={(latitude) => set({ latitude })}
              />
              <TextField
                label="Longitude, west is minus"
                inputMode="decimal"
                value={form.longitude}
                problem={problem("longitude_deg")}
                onText={(longitude) => set({ longitude })}
              />
              <SelectField
                label="Test kit"
                value={form.kit}
                options={choices.data.kits.map(({ key, name }) => ({ value: key, label: name }))}
                onPick={(kit) => set({ kit })}
              />
            </Grid>
            <PickOne
              label="Who swims here"
              options={[
                { value: "private", label: "A household" },
                { value: "public", label: "The public" },
              ]}
              value={form.isPublic ? "public" : "private"}
              onPick={(who) => set({ isPublic: who === "public" })}
            />
            {form.isPublic && (
              <Text color="accent" fontWeight="600">
                A public pool falls under the health code and usually needs a certified operator. They decide;
                this is a helper only.
              </Text>
            )}
          </Section>
          <Section title="Volume">
            <PickOne
              label="From"
              options={[
                { value: "dimensions", label: "Its dimensions" },
                { value: "typed", label: "A known volume" },
              ]}
              value={form.how}
              onPick={(how) => set({ how })}
            />
            {form.how === "typed" && (
              <TextField
                label={`Volume, ${units === "us" ? "gallons" : "liters"} unless you write the unit`}
                name="volume"
                inputMode="decimal"
                value={form.volume}
                problem={basinTrouble?.field === "volume" ? basinTrouble.message : null}
                onText={(volume) => set({ volume })}
              />
            )}
            <Dimensions form={form} set={set} units={units} trouble={basinTrouble} />
          </Section>
          <Section title="How it is judged">
            <Rules form={form} set={set} choices={choices.data} problem={problem} />
          </Section>
          <Section title="What it runs on">
            <PickOne
              label="Surface"
              options={SURFACES}
              value={form.surface}
              onPick={(surface) => set({ surface })}
            />
            <PickOne
              label="Sanitiser"
              options={SANITISERS}
              value={form.chlorination}
              onPick={(chlorination) => set({ chlorination })}
            />
            {refused !== undefined && (
              <Text role="alert" color="accent" fontWeight="600">
                {refused}
              </Text>
            )}
            <PickOne
              label="Filter"
              options={FILTERS}
              value={form.filter}
              onPick={(filter) => set({ filter })}
            />
            <PickOne
              label="Where"
              options={[
                { value: "out", label: "Outdoors" },
                { value: "in", label: "Indoors" },
              ]}
              value={form.indoor ? "in" : "out"}
              onPick={(where) => set({ indoor: where === "in" })}
            />
            <PickOne
              label="Between swims"
              options={[
                { value: "open", label: "Open" },
                { value: "covered", label: "Under a cover" },
              ]}
              value={form.covered ? "covered" : "open"}
              onPick={(cover) => set({ covered: cover === "covered" })}
            />
            <Grid templateColumns={{ base: "1fr", md: "repeat(3, 1fr)" }} gap="4">
              <TextField
                label="Fill water pH"
                inputMode="decimal"
                value={form.fillPh}
                problem={problem("fill_ph")}
                onText={(fillPh) => set({ fillPh })}
              />
              <TextField
                label="Fill water alkalinity"
                inputMode="decimal"
                value={form.fillAlkalinity}
                problem={problem("fill_alkalinity")}
                onText={(fillAlkalinity) => set({ fillAlkalinity })}
              />
              <TextField
                label="Fill water calcium"
                inputMode="decimal"
                value={form.fillCalcium}
                problem={problem("fill_calcium")}
                onText={(fillCalcium) => set({ fillCalcium })}
              />
            </Grid>
          </Section>
          {trouble !== null && (
            <Text role="alert" color="accent" fontWeight="600">
              {trouble.message}
            </Text>
          )}
          <MainButton type="submit" disabled={busy || refused !== undefined} justifySelf={{ md: "start" }}>
            {busy ? "Saving …" : action}
          </MainButton>
        </Grid>
        <Card as="aside" aria-label="Volume and plan" position={{ lg: "sticky" }} top="4">
          <Text fontSize="note" color="soft">
            Volume in use
          </Text>
          <Text fontSize="2rem" fontWeight="750" lineHeight="1.2" data-testid="volume">
            {preview.data && basin !== null ? volumeText(preview.data.volume_l, units) : "–"}
          </Text>
          <Text fontSize="note" color="soft" mb="3">
            {preview.data?.mean_depth_m && basin !== null
              ? `mean depth ${units === "us" ? `${trimmed(preview.data.mean_depth_m / 0.3048, 1)} ft` : `${trimmed(preview.data.mean_depth_m, 2)} m`}`
              : "appears when the dimensions are complete"}
          </Text>
          {preview.data?.drawing && (
            <>
              <PlanDrawing plan={preview.data.drawing} units={units} show="sample" />
              <Fixtures form={form} set={set} />
            </>
          )}
        </Card>
      </Grid>
    </form>
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
const SANITISERS = [
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
