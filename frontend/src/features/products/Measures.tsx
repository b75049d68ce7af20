import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import type { ContainerTyped, InventoryLine, Preferences, PreferencesIn } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import { personId } from "../../lib/person";
import { trimmed, type Units } from "../../lib/units";

type Form = Omit<PreferencesIn, "id" | "at" | "person_id">;

const KINDS = [
  { value: "cup", label: "Measuring cup" },
  { value: "jug", label: "Jug" },
  { value: "scoop", label: "Scoop" },
  { value: "scale", label: "Scale" },
] as const;
const PARTS = [
  { value: "1", label: "whole ones" },
  { value: "2", label: "halves" },
  { value: "4", label: "quarters" },
] as const;

const L_PER_GAL = 3.785411784;

/** As it would be typed again, in the units shown. */
function formOf(habits: Preferences, units: Units): Form {
  const us = units === "us";
  const text = (value: number, digits = 2) => trimmed(value, digits);
  const liters = (value: number) => text(us ? value / L_PER_GAL : value, 0);
  return {
    currency: habits.currency ?? "$",
    storage: `${text(us ? ((habits.storage_c ?? 24) * 9) / 5 + 32 : (habits.storage_c ?? 24), 0)}`,
    water_price:
      habits.water_price == null
        ? ""
        : text(us ? (habits.water_price * 1000 * L_PER_GAL) / 1000 : habits.water_price),
    drain_rate: liters(habits.drain_l_per_h ?? 0),
    fill_rate: liters(habits.fill_l_per_h ?? 0),
    containers: (habits.containers ?? []).map((box) => ({
      kind: box.kind,
      name: box.name,
      holds:
        box.volume_ml != null
          ? us
            ? `${text(box.volume_ml / 29.5735295625)} fl oz`
            : `${text(box.volume_ml)} ml`
          : us
            ? `${text((box.mass_g ?? 0) / 28.349523125, 3)} oz`
            : `${text(box.mass_g ?? 0, 3)} g`,
      product_id: box.product_id ?? null,
      parts: box.parts ?? 1,
    })),
  };
}

interface MeasuresProps {
  habits: Preferences;
  shelf: readonly InventoryLine[];
  units: Units;
}

/** What the person measures with, and what water and the store are like: amounts are told in these. */
export function Measures({ habits, shelf, units }: MeasuresProps) {
  const queries = useQueryClient();
  const [form, setForm] = useState(() => formOf(habits, units));
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const set = (part: Partial<Form>) => setForm({ ...form, ...part });
  const problem = (field: string) => (trouble?.field === field ? trouble.message : null);

  async function save() {
    try {
      await take(
        client.POST("/api/v1/habits", {
          params: { query: { metric: units === "metric" } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), ...form },
        }),
      );
      setTrouble(null);
      await queries.invalidateQueries();
      notify("Kept. Sheets are told in these from now on.");
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
    }
  }

  return (
    <Card as="section" aria-label="What you measure with">
      <Heading as="h2" fontSize="lead" mb="1">
        What you measure with
      </Heading>
      <Text fontSize="note" color="soft" mb="3">
        Sheets then say “2½ × blue cup”. Whole bags and jugs need nothing here.
      </Text>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Grid gap="4">
          {form.containers.map((box, index) => (
            <ContainerRow
              key={index}
              box={box}
              shelf={shelf}
              change={(next) =>
                set({ containers: form.containers.map((old, n) => (n === index ? next : old)) })
              }
              drop={() => set({ containers: form.containers.filter((_, n) => n !== index) })}
            />
          ))}
          <SideButton
            type="button"
            onClick={() =>
              set({
                containers: [
                  ...form.containers,
                  { kind: "cup", name: "", holds: "", product_id: null, parts: 1 },
                ],
              })
            }
          >
            Add a measure
          </SideButton>
          {problem("containers") && (
            <Text role="alert" color="accent" fontWeight="600">
              {problem("containers")}
            </Text>
          )}
          <Grid templateColumns="1fr 1fr" gap="4" alignItems="end">
            <TextField
              label="Currency"
              maxLength={4}
              value={form.currency}
              problem={problem("currency")}
              onText={(currency) => set({ currency })}
            />
            <TextField
              label={units === "us" ? "Store, °F" : "Store, °C"}
              inputMode="decimal"
              value={form.storage}
              problem={problem("storage")}
              onText={(storage) => set({ storage })}
            />
            <TextField
              label={units === "us" ? "Pump out, gal an hour" : "Pump out, L an hour"}
              inputMode="decimal"
              value={form.drain_rate}
              problem={problem("drain_rate")}
              onText={(drain_rate) => set({ drain_rate })}
            />
            <TextField
              label={units === "us" ? "Hose, gal an hour" : "Hose, L an hour"}
              inputMode="decimal"
              value={form.fill_rate}
              problem={problem("fill_rate")}
              onText={(fill_rate) => set({ fill_rate })}
            />
            <TextField
              label={units === "us" ? "Water, per 1000 gal" : "Water, per m³"}
              inputMode="decimal"
              value={form.water_price}
              problem={problem("water_price")}
              onText={(water_price) => set({ water_price })}
            />
          </Grid>
          {trouble !== null && trouble.field === null && (
            <Text role="alert" color="accent" fontWeight="600">
              {trouble.message}
            </Text>
          )}
          <MainButton type="submit">Keep these</MainButton>
        </Grid>
      </form>
    </Card>
  );
}

interface ContainerRowProps {
  box: ContainerTyped;
  shelf: readonly InventoryLine[];
  change: (box: ContainerTyped) => void;
  drop: () => void;
}

function ContainerRow({ box, shelf, change, drop }: ContainerRowProps) {
  const powders = shelf.filter(({ form }) => form !== "liquid");
  return (
    <Box borderTop="1px solid" borderColor="hairline" pt="3">
      <Grid templateColumns="1fr 1fr" gap="3" alignItems="end">
        <SelectField
          label="Kind"
          value={box.kind}
          options={KINDS}
          onPick={(kind) =>
            change({ ...box, kind: KINDS.find(({ value }) => value === kind)?.value ?? box.kind })
          }
        />
        <TextField label="You call it" value={box.name} onText={(name) => change({ ...box, name })} />
        <TextField
          label={box.kind === "scale" ? "Shows steps of" : "Holds"}
          placeholder={box.kind === "cup" || box.kind === "jug" ? "8 fl oz" : "5 g"}
          value={box.holds}
          onText={(holds) => change({ ...box, holds })}
        />
        {box.kind !== "scale" && (
          <SelectField
            label="Read in"
            value={String(box.parts)}
            options={PARTS}
            onPick={(parts) => change({ ...box, parts: Number(parts) })}
          />
        )}
      </Grid>
      {box.kind === "scoop" && (
        <Box mt="3">
          <SelectField
            label="Of which product (weigh one scoop)"
            value={box.product_id ?? ""}
            options={[
              { value: "", label: "Choose" },
              ...powders.map(({ id, label }) => ({ value: id, label })),
            ]}
            onPick={(id) => change({ ...box, product_id: id === "" ? null : id })}
          />
        </Box>
      )}
      <Flex mt="2">
        <SideButton type="button" onClick={drop} aria-label={`Remove ${box.name || box.kind}`}>
          Remove
        </SideButton>
      </Flex>
    </Box>
  );
}
