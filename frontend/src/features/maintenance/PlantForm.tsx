import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useFieldArray } from "react-hook-form";
import { client, take } from "../../api/client";
import { maintenanceQuery } from "../../api/queries";
import type { Plant } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { Loading } from "../../components/States";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
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
    windows: plant.windows.map((one) => ({ start: minuteText(one.start_min), end: minuteText(one.end_min) })),
  };
}

const exactly = (value: number | null | undefined, unit: string) => (value == null ? "" : `${value} ${unit}`);
const dayOf = (text: string) => (text === "" ? null : `${text}T12:00:00Z`);
const minutesOf = (text: string) => {
  const [hours = 0, minutes = 0] = text.split(":").map(Number);
  return hours * 60 + minutes;
};

type Typed = ReturnType<typeof started>;
const { Field, Amount, Choice } = fieldsOf<Typed>();

function Form({ plant, poolId, units, hasCell }: PlantFormProps & { plant: Plant }) {
  const queries = useQueryClient();
  const [first] = useState(() => started(plant, units));
  const kit = useKit<Typed>({
    start: first,
    send: async (typed) => {
      await take(
        client.POST("/api/v1/pools/{pool_id}/plant", {
          params: { path: { pool_id: poolId }, query: { metric: units === "metric" } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), ...told(typed, first, plant) },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify("Set from now on. What was before stays in the log.");
    },
  });
  const windows = useFieldArray({ control: kit.form.control, name: "windows" });
  return (
    <Card as="section" data-noprint>
      <Heading as="h2" fontSize="lead" mb="3">
        Pump, filter and cell
      </Heading>
      <KitForm kit={kit}>
        <Grid templateColumns="repeat(2, minmax(0,1fr))" gap="3" alignItems="end">
          <Field name="flow" server="pump_flow" label={`Pump flow, ${units === "us" ? "gpm" : "L/min"}`} />
          <Amount name="kw" server="pump_kw" label="Pump, kW" />
          <Amount name="price" server="price_per_kwh" label="Price of a kWh" />
          <Field
            name="clean"
            server="clean_pressure"
            label={`Clean pressure, ${units === "us" ? "psi" : "bar"}`}
          />
          <Field name="media" server="media_since" label="Sand or cartridge since" type="date" />
          {hasCell && (
            <>
              <Field name="cellSince" server="cell_since" label="Cell since" type="date" />
              <Amount name="rated" server="cell_rated_h" label="Cell’s rated hours" inputMode="numeric" />
            </>
          )}
        </Grid>
        {hasCell && (
          <Box mt="3">
            <Choice
              name="kind"
              label="The cell"
              options={[
                { value: "self_cleaning", label: "Cleans itself" },
                { value: "plain", label: "Plain" },
              ]}
            />
          </Box>
        )}
        <Text fontSize="note" color="soft" mt="3">
          The timer runs the pump
        </Text>
        {windows.fields.map(({ id, start }, index) => (
          <Grid
            key={id}
            templateColumns="minmax(0,1fr) minmax(0,1fr) auto"
            maxW="24rem"
            gap="2"
            alignItems="end"
            mb="2"
          >
            <Field name={`windows.${index}.start`} label="from" type="time" />
            <Field name={`windows.${index}.end`} label="to" type="time" />
            <SideButton
              px="3"
              aria-label={`Remove the window from ${start}`}
              onClick={() => windows.remove(index)}
            >
              ×
            </SideButton>
          </Grid>
        ))}
        <SideButton onClick={() => windows.append({ start: "08:00", end: "12:00" })}>Add a window</SideButton>
        <FormProblem
          shown={[
            "pump_flow",
            "pump_kw",
            "price_per_kwh",
            "clean_pressure",
            "media_since",
            ...(hasCell ? ["cell_since", "cell_rated_h"] : []),
          ]}
        />
        <Box mt="4">
          <MainButton type="submit">Keep from now on</MainButton>
        </Box>
      </KitForm>
    </Card>
  );
}

/** What is told: where a field still shows what it was opened with, the exact value behind it. */
function told(typed: Typed, first: Typed, plant: Plant) {
  return {
    pump_flow: asGiven(typed.flow, { shown: first.flow, exact: exactly(plant.pump_flow_l_min, "l/min") }),
    pump_kw: typed.kw,
    price_per_kwh: typed.price,
    windows: typed.windows.map(({ start, end }) => [minutesOf(start), minutesOf(end)]),
    clean_pressure: asGiven(typed.clean, {
      shown: first.clean,
      exact: exactly(plant.clean_pressure_kpa, "kpa"),
    }),
    media_since: typed.media === first.media ? (plant.media_since ?? null) : dayOf(typed.media),
    cell_kind: typed.kind,
    cell_since: typed.cellSince === first.cellSince ? (plant.cell_since ?? null) : dayOf(typed.cellSince),
    cell_rated_h: typed.rated,
    solar: plant.solar,
  };
}
