import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, Trouble, take } from "../../api/client";
import { maintenanceQuery } from "../../api/queries";
import type { Plant } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PickOne } from "../../components/Pick";
import { Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { asGiven } from "../../lib/given";
import { personId } from "../../lib/person";
import { flowText, minuteText, pressureText } from "../../lib/plant";
import type { Units } from "../../lib/units";

interface PlantFormProps {
  poolId: string;
  units: Units;
  hasCell: boolean;
}

/** Pump, filter and cell as they are from now on. */
export function PlantForm(props: PlantFormProps) {
  const care = useQuery(maintenanceQuery(props.poolId));
  if (care.data === undefined) return <Loading what="the plant" />;
  return <Form key={JSON.stringify(care.data.plant) + props.units} plant={care.data.plant} {...props} />;
}

function started(plant: Plant, units: Units) {
  return {
    flow: plant.pump_flow_l_min == null ? "" : flowText(plant.pump_flow_l_min, units),
    kw: plant.pump_kw == null ? "" : String(plant.pump_kw),
    price: plant.price_per_kwh == null ? "" : String(plant.price_per_kwh),
    clean: plant.clean_pressure_kpa == null ? "" : pressureText(plant.clean_pressure_kpa, units),
    media: plant.media_since?.slice(0, 10) ?? "",
    cellSince: plant.cell_since?.slice(0, 10) ?? "",
    rated: plant.cell_rated_h == null ? "" : String(plant.cell_rated_h),
    kind: plant.cell_kind,
    windows: plant.windows.map(
      (one) => [minuteText(one.start_min), minuteText(one.end_min)] as [string, string],
    ),
  };
}

const exactly = (value: number | null | undefined, unit: string) => (value == null ? "" : `${value} ${unit}`);
const dayOf = (text: string) => (text === "" ? null : `${text}T12:00:00Z`);
const minutesOf = (text: string) => {
  const [hours = 0, minutes = 0] = text.split(":").map(Number);
  return hours * 60 + minutes;
};

function Form({ plant, poolId, units, hasCell }: PlantFormProps & { plant: Plant }) {
  const queries = useQueryClient();
  const [first] = useState(() => started(plant, units));
  const [form, setForm] = useState(first);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const set = (part: Partial<typeof form>) => setForm({ ...form, ...part });
  const problem = (field: string) => (trouble?.field === field ? trouble.message : null);

  async function keep() {
    setTrouble(null);
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/plant", {
          params: { path: { pool_id: poolId }, query: { metric: units === "metric" } },
          body: {
            id: crypto.randomUUID(),
            at: null,
            person_id: personId(),
            pump_flow: asGiven(form.flow, {
              shown: first.flow,
              exact: exactly(plant.pump_flow_l_min, "l/min"),
            }),
            pump_kw: form.kw,
            price_per_kwh: form.price,
            windows: form.windows.map(([start, end]) => [minutesOf(start), minutesOf(end)]),
            clean_pressure: asGiven(form.clean, {
              shown: first.clean,
              exact: exactly(plant.clean_pressure_kpa, "kpa"),
            }),
            media_since: form.media === first.media ? (plant.media_since ?? null) : dayOf(form.media),
            cell_kind: form.kind,
            cell_since:
              form.cellSince === first.cellSince ? (plant.cell_since ?? null) : dayOf(form.cellSince),
            cell_rated_h: form.rated,
            solar: plant.solar,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify("Set from now on. What was before stays in the log.");
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
    }
  }

  return (
    <Card as="section" data-noprint>
      <Heading as="h2" fontSize="lead" mb="3">
        Pump, filter and cell
      </Heading>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        <Grid templateColumns={{ base: "repeat(2, minmax(0,1fr))", md: "repeat(3, minmax(0,1fr))" }} gap="3">
          <TextField
            label={`Pump flow, ${units === "us" ? "gpm" : "L/min"}`}
            value={form.flow}
            problem={problem("pump_flow")}
            onText={(flow) => set({ flow })}
          />
          <TextField label="Pump, kW" inputMode="decimal" value={form.kw} onText={(kw) => set({ kw })} />
          <TextField
            label="Price of a kWh"
            inputMode="decimal"
            value={form.price}
            onText={(price) => set({ price })}
          />
          <TextField
            label={`Clean pressure, ${units === "us" ? "psi" : "bar"}`}
            value={form.clean}
            problem={problem("clean_pressure")}
            onText={(clean) => set({ clean })}
          />
          <TextField
            label="Sand or cartridge since"
            type="date"
            value={form.media}
            onText={(media) => set({ media })}
          />
          {hasCell && (
            <>
              <TextField
                label="Cell since"
                type="date"
                value={form.cellSince}
                onText={(cellSince) => set({ cellSince })}
              />
              <TextField
                label="Cell’s rated hours"
                inputMode="numeric"
                value={form.rated}
                onText={(rated) => set({ rated })}
              />
            </>
          )}
        </Grid>
        {hasCell && (
          <Box mt="3">
            <PickOne
              label="The cell"
              options={[
                { value: "self_cleaning", label: "cleans itself" },
                { value: "plain", label: "plain" },
              ]}
              value={form.kind}
              onPick={(kind) => set({ kind })}
            />
          </Box>
        )}
        <Text fontSize="note" color="soft" mt="3">
          The timer runs the pump
        </Text>
        {form.windows.map(([start, end], index) => (
          <Flex key={index} gap="2" align="end" mb="2">
            <TextField
              label="from"
              type="time"
              value={start}
              onText={(text) =>
                set({ windows: form.windows.map((one, i) => (i === index ? [text, one[1]] : one)) })
              }
            />
            <TextField
              label="to"
              type="time"
              value={end}
              onText={(text) =>
                set({ windows: form.windows.map((one, i) => (i === index ? [one[0], text] : one)) })
              }
            />
            <SideButton
              px="3"
              aria-label={`Remove the window from ${start}`}
              onClick={() => set({ windows: form.windows.filter((_, i) => i !== index) })}
            >
              ×
            </SideButton>
          </Flex>
        ))}
        <SideButton onClick={() => set({ windows: [...form.windows, ["08:00", "12:00"]] })}>
          Add a window
        </SideButton>
        {trouble !== null && problem("pump_flow") === null && problem("clean_pressure") === null && (
          <Text role="alert" color="accent" fontWeight="600" mt="3">
            {trouble.message}
          </Text>
        )}
        <Box mt="4">
          <MainButton type="submit">Keep from now on</MainButton>
        </Box>
      </form>
    </Card>
  );
}
