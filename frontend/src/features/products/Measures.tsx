import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useFieldArray, useWatch } from "react-hook-form";
import { client, take } from "../../api/client";
import type { ContainerTyped, InventoryLine, Preferences } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { asGiven, type Given } from "../../lib/given";
import { personId } from "../../lib/person";
import { trimmed, type Units } from "../../lib/units";

interface BoxForm {
  kind: ContainerTyped["kind"];
  name: string;
  holds: string;
  product_id: string;
  parts: string;
}
interface Form {
  currency: string;
  storage: string;
  water_price: string;
  drain_rate: string;
  fill_rate: string;
  containers: BoxForm[];
}

const KINDS = [
  { value: "cup", label: "Measuring cup" },
  { value: "jug", label: "Jug" },
  { value: "scoop", label: "Scoop" },
  { value: "scale", label: "Scale" },
] as const;
const PARTS = [
  { value: "1", label: "Whole ones" },
  { value: "2", label: "Halves" },
  { value: "4", label: "Quarters" },
] as const;

const L_PER_GAL = 3.785411784;
const ML_PER_FL_OZ = 29.5735295625;
const G_PER_OZ = 28.349523125;

/** As it would be typed again, in the units shown; with the exact values behind what is rounded. */
function opened(habits: Preferences, units: Units): { shown: Form; exact: Map<string, Given> } {
  const us = units === "us";
  const exact = new Map<string, Given>();
  const told = (field: string, shown: string, value: string) => {
    exact.set(field, { shown, exact: value });
    return shown;
  };
  // Per 1000 gal of US units: as many times the price of a cubic meter as a gallon has liters.
  const price = habits.water_price == null ? null : habits.water_price * (us ? L_PER_GAL : 1);
  const storageC = habits.storage_c ?? 24;
  const rate = (field: string, liters: number) =>
    told(field, trimmed(us ? liters / L_PER_GAL : liters, 0), `${liters} l`);
  const holds = (box: NonNullable<Preferences["containers"]>[number], index: number) => {
    const [value, digits, perUs, usUnit, unit] =
      box.volume_ml != null
        ? [box.volume_ml, 2, ML_PER_FL_OZ, "fl oz", "ml"]
        : [box.mass_g ?? 0, 3, G_PER_OZ, "oz", "g"];
    const shown = us ? `${trimmed(value / perUs, digits)} ${usUnit}` : `${trimmed(value, digits)} ${unit}`;
    return told(`containers.${index}`, shown, `${value} ${unit}`);
  };
  const shown: Form = {
    currency: habits.currency ?? "$",
    storage: told("storage", trimmed(us ? (storageC * 9) / 5 + 32 : storageC, 0), `${storageC} c`),
    water_price: price === null ? "" : told("water_price", trimmed(price, 2), String(price)),
    drain_rate: rate("drain_rate", habits.drain_l_per_h ?? 0),
    fill_rate: rate("fill_rate", habits.fill_l_per_h ?? 0),
    containers: (habits.containers ?? []).map((box, index) => ({
      kind: box.kind,
      name: box.name,
      holds: holds(box, index),
      product_id: box.product_id ?? "",
      parts: String(box.parts ?? 1),
    })),
  };
  return { shown, exact };
}

interface MeasuresProps {
  habits: Preferences;
  shelf: readonly InventoryLine[];
  units: Units;
}

const { Field, Amount, Select } = fieldsOf<Form>();

/** What the person measures with, and what water and the store are like: amounts are told in these. */
export function Measures({ habits, shelf, units }: MeasuresProps) {
  const queries = useQueryClient();
  const [first] = useState(() => opened(habits, units));
  const kit = useKit<Form>({
    start: first.shown,
    send: async (typed) => {
      await take(
        client.POST("/api/v1/habits", {
          params: { query: { metric: units === "metric" } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), ...told(typed, first) },
        }),
      );
      notify("Kept. Plans name amounts in these from now on.");
      await queries.invalidateQueries();
    },
  });
  const boxes = useFieldArray({ control: kit.form.control, name: "containers" });
  const us = units === "us";
  return (
    <Card as="section" aria-label="What you measure with">
      <Heading as="h2" fontSize="lead" mb="1">
        What you measure with
      </Heading>
      <Text fontSize="note" color="soft" mb="3">
        Plans then say “2½ × blue cup”. Whole bags and jugs need nothing here.
      </Text>
      <KitForm kit={kit}>
        <Grid gap="4">
          {boxes.fields.map(({ id }, index) => (
            <ContainerRow key={id} index={index} shelf={shelf} drop={() => boxes.remove(index)} />
          ))}
          <SideButton
            onClick={() => boxes.append({ kind: "cup", name: "", holds: "", product_id: "", parts: "1" })}
          >
            Add a measure
          </SideButton>
          <Grid templateColumns="1fr 1fr" gap="4" alignItems="end">
            <Field name="currency" label="Currency" maxLength={4} />
            <Amount name="storage" label={us ? "Store, °F" : "Store, °C"} />
            <Amount name="drain_rate" label={us ? "Pump out, gal an hour" : "Pump out, L an hour"} />
            <Amount name="fill_rate" label={us ? "Hose, gal an hour" : "Hose, L an hour"} />
            <Amount name="water_price" label={us ? "Water, per 1000 gal" : "Water, per m³"} />
          </Grid>
          <FormProblem shown={["currency", "storage", "drain_rate", "fill_rate", "water_price"]} />
          <MainButton type="submit">Keep these</MainButton>
        </Grid>
      </KitForm>
    </Card>
  );
}

/** What is told: where a field still shows what it was opened with, the exact value behind it. */
function told(typed: Form, { exact }: ReturnType<typeof opened>) {
  const same = (field: string, text: string) => asGiven(text, exact.get(field));
  return {
    ...typed,
    storage: same("storage", typed.storage),
    drain_rate: same("drain_rate", typed.drain_rate),
    fill_rate: same("fill_rate", typed.fill_rate),
    water_price: same("water_price", typed.water_price),
    containers: typed.containers.map((box, index) => ({
      ...box,
      holds: same(`containers.${index}`, box.holds),
      product_id: box.product_id === "" ? null : box.product_id,
    })),
  };
}

interface ContainerRowProps {
  index: number;
  shelf: readonly InventoryLine[];
  drop: () => void;
}

function ContainerRow({ index, shelf, drop }: ContainerRowProps) {
  const at = `containers.${index}` as const;
  const box = useWatch<Form, typeof at>({ name: at });
  const powders = shelf.filter(({ form }) => form !== "liquid");
  return (
    <Box borderTop="1px solid" borderColor="hairline" pt="3">
      <Grid templateColumns="1fr 1fr" gap="3" alignItems="end">
        <Select name={`${at}.kind`} server={[]} label="Kind" options={KINDS} />
        <Field name={`${at}.name`} server={[]} label="You call it" />
        <Field
          name={`${at}.holds`}
          server={[]}
          label={box.kind === "scale" ? "Shows steps of" : "Holds"}
          placeholder={box.kind === "cup" || box.kind === "jug" ? "8 fl oz" : "5 g"}
        />
        {box.kind !== "scale" && <Select name={`${at}.parts`} server={[]} label="Read in" options={PARTS} />}
      </Grid>
      {box.kind === "scoop" && (
        <Box mt="3">
          <Select
            name={`${at}.product_id`}
            server={[]}
            label="Of which product (weigh one scoop)"
            options={[
              { value: "", label: "Choose" },
              ...powders.map(({ id, label }) => ({ value: id, label })),
            ]}
          />
        </Box>
      )}
      <Flex mt="2">
        <SideButton onClick={drop} aria-label={`Remove ${box.name || box.kind}`}>
          Remove
        </SideButton>
      </Flex>
    </Box>
  );
}
