import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { climateQuery } from "../../api/queries";
import type { Climate } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { asGiven } from "../../lib/given";
import { temperatureText, type Units } from "../../lib/units";
import type { useSeasonLists } from "./useSeasonLists";

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"] as const;

interface ClimateProps extends Pick<ReturnType<typeof useSeasonLists>, "setClimate"> {
  busy: boolean;
  poolId: string;
  units: Units;
}

/** When the water crosses 65 F: from the log, else from a table of months that can be changed. */
export function ClimateCard({ poolId, units, busy, setClimate }: ClimateProps) {
  const climate = useQuery(climateQuery(poolId));
  const [open, setOpen] = useState(false);
  if (climate.data === undefined) return null;
  const { opening, closing, own } = climate.data;
  const indoors = opening.source === "indoors";
  return (
    <Card as="section" mt="5" aria-label="When to open and close" data-noprint>
      <Flex justify="space-between" align="center" gap="3" wrap="wrap">
        <Box>
          <Heading as="h2" fontSize="lead">
            When to open and close
          </Heading>
          <Text>{climate.data.text}</Text>
          <Text fontSize="note" color="soft" hidden={indoors}>
            {opening.source === "log" || closing.source === "log"
              ? "From this pool's own log where it shows the day, "
              : "From the table of months, "}
            {own ? "as you set it." : "as usual at this latitude."}
          </Text>
        </Box>
        {!indoors && (
          <SideButton aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? "Fold the table" : "The table of months"}
          </SideButton>
        )}
      </Flex>
      {open && (
        <Months key={String(own)} climate={climate.data} units={units} busy={busy} setClimate={setClimate} />
      )}
    </Card>
  );
}

interface MonthsProps extends Omit<ClimateProps, "poolId"> {
  climate: Climate;
}

interface MonthsTyped {
  monthly: { warm: string }[];
}
const { Field } = fieldsOf<MonthsTyped>();

function Months({ climate, units, busy, setClimate }: MonthsProps) {
  const [shown] = useState(() => climate.monthly_c.map((value) => temperatureText(value, units)));
  const kit = useKit<MonthsTyped>({
    start: { monthly: shown.map((warm) => ({ warm })) },
    send: ({ monthly }) =>
      setClimate(
        monthly.map(({ warm }, month) =>
          asGiven(warm, { shown: shown[month] ?? "", exact: `${climate.monthly_c[month]} c` }),
        ),
      ),
  });
  return (
    <KitForm kit={kit}>
      <Grid mt="4" templateColumns={{ base: "repeat(3,1fr)", md: "repeat(6,1fr)" }} gap="3">
        {MONTHS.map((month, index) => (
          <Field key={month} name={`monthly.${index}.warm`} label={`${month}, the middle`} />
        ))}
      </Grid>
      <FormProblem />
      <SideButton type="submit" mt="3" disabled={busy}>
        Keep this table
      </SideButton>
    </KitForm>
  );
}
