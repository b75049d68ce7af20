import { Flex, Grid, Heading } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Trouble } from "../../api/client";
import { postOrKeep, SAVED } from "../../api/outbox";
import { inventoryQuery } from "../../api/queries";
import type { WaterChange } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
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

const { Field, Amount, Choice, Select } = fieldsOf<Told>();

/** What each kind's own fields say themselves, by the server's names. */
const SHOWN: Record<Kind, readonly string[]> = {
  poured: ["product_id", "amount", "at"],
  water: ["volume", "at"],
  swimmers: ["bather_hours", "swimmers", "hours", "at"],
  cell: ["output_g_per_h", "percent", "hours_per_day", "at"],
};

/** Tell the journal what happened outside a sheet: poured, water changed, swimmers, the cell's setting. */
export function LogEntryCard({ poolId, hasCell }: { poolId: string; hasCell: boolean }) {
  const units = useStore(unitsStore);
  const queries = useQueryClient();
  const shelf = useQuery(inventoryQuery(units));
  const [open, setOpen] = useState(false);
  const kit = useKit<Told>({
    start: EMPTY,
    send: async (told, form, id) => {
      const kept = await send(poolId, { ...told, id }, units);
      if (kept === SAVED) notify("Kept on this device; it is sent when the server answers.");
      else {
        await queries.invalidateQueries({ queryKey: ["pool", poolId] });
        notify("Kept in the journal.");
      }
      form.reset({ ...EMPTY, kind: told.kind });
      setOpen(false);
    },
  });
  const kind = kit.form.watch("kind");
  if (!open)
    return (
      <Flex mb="5">
        <SideButton onClick={() => setOpen(true)}>Add to the log</SideButton>
      </Flex>
    );

  const products = (shelf.data ?? [])
    .filter(({ place }) => place !== "gone")
    .map(({ id, label }) => ({ value: id, label }));
  return (
    <Card as="section" aria-label="Add to the log" mb="5">
      <Heading as="h2" fontSize="lead" mb="3">
        What happened
      </Heading>
      <KitForm kit={kit}>
        <Grid gap="4" maxW="40rem">
          <Choice
            name="kind"
            label="Kind"
            options={hasCell ? [...KINDS, { value: "cell", label: "Cell set" }] : KINDS}
          />
          {kind === "poured" && (
            <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
              <Select
                name="product"
                server="product_id"
                label="Product"
                options={[{ value: "", label: "Choose" }, ...products]}
              />
              <Field name="amount" label="How much" help='like "44 fl oz", "2 bags" or "half a jug"' />
            </Grid>
          )}
          {kind === "water" && (
            <>
              <Choice name="water" label="Why" options={WATER} />
              <Amount
                name="volume"
                label={`How much water, ${units === "us" ? "gallons" : "liters"} unless you write the unit`}
              />
            </>
          )}
          {kind === "swimmers" && (
            <Grid templateColumns="1fr 1fr" gap="4">
              <Amount name="swimmers" server={["bather_hours", "swimmers"]} label="Swimmers" />
              <Amount name="hours" label="Hours each" />
            </Grid>
          )}
          {kind === "cell" && (
            <Grid templateColumns={{ base: "1fr", md: "repeat(3, 1fr)" }} gap="4">
              <Amount
                name="output"
                server="output_g_per_h"
                label={`Output at 100 %, ${units === "us" ? "lb a day" : "g an hour"}`}
              />
              <Amount name="percent" label="Setting, %" />
              <Amount name="runs" server="hours_per_day" label="Hours a day" />
            </Grid>
          )}
          <Field name="at" label="When, if not just now" type="datetime-local" />
          <FormProblem shown={SHOWN[kind]} />
          <Flex gap="3">
            <MainButton type="submit">Keep it</MainButton>
            <SideButton onClick={() => setOpen(false)}>Close</SideButton>
          </Flex>
        </Grid>
      </KitForm>
    </Card>
  );
}

/** Sent, or kept on this device where there is no server: what went in counts, whenever it is heard of. */
function send(pool_id: string, told: Told & { id: string }, units: Units): Promise<unknown> {
  const params = { path: { pool_id } };
  const stamp = {
    id: told.id,
    at: told.at === "" ? null : new Date(told.at).toISOString(),
    person_id: personId(),
  };
  if (told.kind === "poured") {
    if (told.product === "") return Promise.reject(new Trouble("Choose what was poured.", "product_id", 0));
    const query = { metric: units === "metric" };
    const body = {
      ...stamp,
      product_id: told.product,
      chemical: null,
      strength_percent: null,
      amount: told.amount,
    };
    return postOrKeep("/api/v1/pools/{pool_id}/additions", { ...params, query }, body, "What was poured");
  }
  if (told.kind === "water") {
    const volume_unit = units === "us" ? ("gal" as const) : ("l" as const);
    const body = { ...stamp, kind: told.water, volume: told.volume, volume_unit, note: "" };
    return postOrKeep("/api/v1/pools/{pool_id}/water-changes", params, body, "A change of water");
  }
  if (told.kind === "swimmers") {
    const body = { ...stamp, swimmers: told.swimmers, hours: told.hours };
    return postOrKeep("/api/v1/pools/{pool_id}/swimmers", params, body, "Swimmers");
  }
  const body = {
    ...stamp,
    output_g_per_h: told.output,
    output_unit: units === "us" ? ("lb/day" as const) : ("g/h" as const),
    percent: told.percent,
    hours_per_day: told.runs,
  };
  return postOrKeep("/api/v1/pools/{pool_id}/cell", params, body, "The cell's setting");
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
