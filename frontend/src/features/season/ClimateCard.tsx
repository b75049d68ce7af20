import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { climateQuery } from "../../api/queries";
import type { Climate } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { TextField } from "../../components/TextField";
import { dayText } from "../../lib/days";
import { temperatureText, type Units } from "../../lib/units";
import type { useSeasonLists } from "./useSeasonLists";

const MONTHS = ["Jan", "Feb", "Mar", "Apr", "May", "Jun", "Jul", "Aug", "Sep", "Oct", "Nov", "Dec"] as const;

interface ClimateProps extends Pick<ReturnType<typeof useSeasonLists>, "busy" | "setClimate"> {
  poolId: string;
  units: Units;
}

/** When the water crosses 65 F: from the log, else from a table of months that can be changed. */
export function ClimateCard({ poolId, units, busy, setClimate }: ClimateProps) {
  const climate = useQuery(climateQuery(poolId));
  const [open, setOpen] = useState(false);
  if (climate.data === undefined) return null;
  const { opening, closing, own } = climate.data;
  return (
    <Card as="section" mt="5" aria-label="When to open and close" data-noprint>
      <Flex justify="space-between" align="center" gap="3" wrap="wrap">
        <Box>
          <Heading as="h2" fontSize="lead">
            When to open and close
          </Heading>
          <Text>
            {opening.on
              ? `Open before ${dayText(opening.on)}: then the water gets over 65 °F (18 °C). `
              : "The water stays on one side of 65 °F (18 °C) all year. "}
            {closing.on && `It gets under that about ${dayText(closing.on)}.`}
          </Text>
          <Text fontSize="note" color="soft">
            {opening.source === "log" || closing.source === "log"
              ? "From this pool's own log where it shows the day, "
              : "From the table of months, "}
            {own ? "as you set it." : "as usual at this latitude."}
          </Text>
        </Box>
        <SideButton aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Fold the table" : "The table of months"}
        </SideButton>
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

function Months({ climate, units, busy, setClimate }: MonthsProps) {
  const [typed, setTyped] = useState(() => climate.monthly_c.map((value) => temperatureText(value, units)));
  return (
    <Box mt="4">
      <Grid templateColumns={{ base: "repeat(3,1fr)", md: "repeat(6,1fr)" }} gap="3">
        {MONTHS.map((month, index) => (
          <TextField
            key={month}
            label={`${month}, the middle`}
            value={typed[index] ?? ""}
            onText={(text) => setTyped(typed.map((old, at) => (at === index ? text : old)))}
          />
        ))}
      </Grid>
      <SideButton mt="3" disabled={busy} onClick={() => void setClimate(typed)}>
        Keep this table
      </SideButton>
    </Box>
  );
}
