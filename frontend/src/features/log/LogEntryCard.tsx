import { Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { inventoryQuery } from "../../api/queries";
import type { WaterChange } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PickOne } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";

type Kind = "poured" | "water" | "swimmers" | "cell";

interface Told {
  kind: Kind;
  product: string;
  amount: string;
  water: WaterChange;
  volume: string;
  swimmers: string;
  hours: string;
  output: string;
  percent: string;
  runs: string;
  at: string;
}

const EMPTY: Told = {
  kind: "poured",
  product: "",
  amount: "",
  water: "backwash",
  volume: "",
  swimmers: "",
  hours: "",
  output: "",
  percent: "",
  runs: "",
  at: "",
};

/** Tell the journal what happened outside a sheet: poured, water changed, swimmers, the cell's setting. */
export function LogEntryCard({ poolId, hasCell }: { poolId: string; hasCell: boolean }) {
  const units = useStore(unitsStore);
  const queries = useQueryClient();
  const shelf = useQuery(inventoryQuery(units));
  const [open, setOpen] = useState(false);
  const [told, setTold] = useState<Told>(EMPTY);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const set = (part: Partial<Told>) => setTold({ ...told, ...part });
  const problem = (...fields: string[]) =>
    trouble !== null && trouble.field !== null && fields.includes(trouble.field) ? trouble.message : null;
  if (!open)
    return (
      <Flex mb="5">
        <SideButton onClick={() => setOpen(true)}>Tell what happened</SideButton>
      </Flex>
    );

  async function save() {
    setTrouble(null);
    try {
      await send(poolId, told, units);
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify("Kept in the journal.");
      setTold({ ...EMPTY, kind: told.kind });
      setOpen(false);
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
    }
  }

  const products = (shelf.data ?? []).map(({ id, label }) => ({ value: id, label }));
  return (
    <Card as="section" aria-label="Tell what happened" mb="5">
      <Heading as="h2" fontSize="lead" mb="3">
        What happened
      </Heading>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Grid gap="4" maxW="40rem">
          <PickOne
            label="Kind"
            options={hasCell ? [...KINDS, { value: "cell" as const, label: "Cell set" }] : KINDS}
            value={told.kind}
            onPick={(kind) => set({ kind })}
          />
          {told.kind === "poured" && (
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
              <SelectField
                label="Product"
                value={told.product}
                options={[{ value: "", label: "choose" }, ...products]}
                onPick={(product) => set({ product })}
                problem={problem("product_id")}
              />
              <TextField
                label="How much"
                help='like "44 fl oz" or "2 kg"'
                value={told.amount}
                problem={problem("amount")}
                onText={(amount) => set({ amount })}
              />
            </Grid>
          )}
          {told.kind === "water" && (
            <>
              <PickOne label="Why" options={WATER} value={told.water} onPick={(water) => set({ water })} />
              <TextField
                label={`How much water, ${units === "us" ? "gallons" : "liters"} unless you write the unit`}
                inputMode="decimal"
                value={told.volume}
                problem={problem("volume")}
                onText={(volume) => set({ volume })}
              />
            </>
          )}
          {told.kind === "swimmers" && (
            <Grid templateColumns="1fr 1fr" gap="4">
              <TextField
                label="Swimmers"
                inputMode="decimal"
                value={told.swimmers}
                problem={problem("bather_hours", "swimmers")}
                onText={(swimmers) => set({ swimmers })}
              />
              <TextField
                label="Hours each"
                inputMode="decimal"
                value={told.hours}
                problem={problem("hours")}
                onText={(hours) => set({ hours })}
              />
            </Grid>
          )}
          {told.kind === "cell" && (
            <Grid templateColumns={{ base: "1fr", md: "repeat(3, 1fr)" }} gap="4">
              <TextField
                label={`Output at 100 %, ${units === "us" ? "lb a day" : "g an hour"}`}
                inputMode="decimal"
                value={told.output}
                problem={problem("output_g_per_h")}
                onText={(output) => set({ output })}
              />
              <TextField
                label="Setting, %"
                inputMode="decimal"
                value={told.percent}
                problem={problem("percent")}
                onText={(percent) => set({ percent })}
              />
              <TextField
                label="Hours a day"
                inputMode="decimal"
                value={told.runs}
                problem={problem("hours_per_day")}
                onText={(runs) => set({ runs })}
              />
            </Grid>
          )}
          <TextField
            label="When, if not just now"
            type="datetime-local"
            value={told.at}
            problem={problem("at")}
            onText={(at) => set({ at })}
          />
          {trouble !== null && (
            <Text role="alert" color="accent" fontWeight="600">
              {trouble.message}
            </Text>
          )}
          <Flex gap="3">
            <MainButton type="submit">Keep it</MainButton>
            <SideButton onClick={() => setOpen(false)}>Close</SideButton>
          </Flex>
        </Grid>
      </form>
    </Card>
  );
}

async function send(pool_id: string, told: Told, units: Units): Promise<void> {
  const params = { path: { pool_id } };
  const stamp = {
    id: crypto.randomUUID(),
    at: told.at === "" ? null : new Date(told.at).toISOString(),
    person_id: personId(),
  };
  if (told.kind === "poured") {
    if (told.product === "") throw new Trouble("Choose what was poured.", "product_id", 0);
    const query = { metric: units === "metric" };
    const body = {
      ...stamp,
      product_id: told.product,
      chemical: null,
      strength_percent: null,
      amount: told.amount,
    };
    await take(client.POST("/api/v1/pools/{pool_id}/additions", { params: { ...params, query }, body }));
  } else if (told.kind === "water") {
    const volume_unit = units === "us" ? ("gal" as const) : ("l" as const);
    const body = { ...stamp, kind: told.water, volume: told.volume, volume_unit, note: "" };
    await take(client.POST("/api/v1/pools/{pool_id}/water-changes", { params, body }));
  } else if (told.kind === "swimmers") {
    const body = { ...stamp, swimmers: told.swimmers, hours: told.hours };
    await take(client.POST("/api/v1/pools/{pool_id}/swimmers", { params, body }));
  } else {
    const body = {
      ...stamp,
      output_g_per_h: told.output,
      output_unit: units === "us" ? ("lb/day" as const) : ("g/h" as const),
      percent: told.percent,
      hours_per_day: told.runs,
    };
    await take(client.POST("/api/v1/pools/{pool_id}/cell", { params, body }));
  }
}

const KINDS = [
  { value: "poured", label: "Something poured" },
  { value: "water", label: "Water changed" },
  { value: "swimmers", label: "Swimmers" },
] as const;
const WATER = [
  { value: "backwash", label: "Backwash" },
  { value: "refill", label: "Top-up after a leak" },
  { value: "rain", label: "Rain ran over" },
  { value: "drain", label: "Drained and refilled" },
] as const;
