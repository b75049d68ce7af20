import { Box, chakra, Flex, Grid, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useFormContext, useWatch } from "react-hook-form";
import { client, take } from "../../api/client";
import { townsQuery } from "../../api/towns";
import type { Town } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { fieldsOf } from "../../forms/kit";
import { useDebounced } from "../../lib/useDebounced";
import type { PoolForm } from "./form";

const { Field } = fieldsOf<PoolForm>();
const Choice = chakra("button", {
  base: {
    display: "block",
    w: "100%",
    minH: "44px",
    px: "3",
    textAlign: "left",
    cursor: "pointer",
    borderRadius: "8px",
    _hover: { bg: "band" },
  },
});

/** Name and town: the sun and the clock follow from the town. Neither has to be given. */
export function PlaceStep() {
  const { setValue } = useFormContext<PoolForm>();
  const [place, timeZone, latitude] = useWatch<PoolForm, ["place", "timeZone", "latitude"]>({
    name: ["place", "timeZone", "latitude"],
  });
  const [trouble, setTrouble] = useState<string | null>(null);
  const typed = useDebounced(place.trim(), 150);
  const towns = useQuery(townsQuery(latitude === "" ? typed : "", timeZone));
  const choose = (town: Town) => {
    setValue("place", townText(town));
    setValue("timeZone", town.time_zone);
    setValue("latitude", String(town.latitude_deg));
    setValue("longitude", String(town.longitude_deg));
    setTrouble(null);
  };
  const here = () => {
    setTrouble(null);
    navigator.geolocation.getCurrentPosition(
      ({ coords }) =>
        void nearest(coords.latitude, coords.longitude).then(choose, (error: unknown) =>
          setTrouble(error instanceof Error ? error.message : String(error)),
        ),
      () => setTrouble("This device does not tell where it is. Type the nearest town instead."),
      { timeout: 15_000, maximumAge: 600_000 },
    );
  };
  return (
    <Card as="section" aria-label="Place">
      <Grid gap="4" maxW="34rem">
        <Field name="name" label="Name of the pool" />
        <Box>
          <Flex gap="3" align="end" wrap="wrap">
            <Box flex="1 1 14rem">
              <Field
                name="place"
                label="Nearest town"
                autoComplete="off"
                onTyped={() => {
                  setValue("latitude", "");
                  setValue("longitude", "");
                }}
              />
            </Box>
            {"geolocation" in navigator && <SideButton onClick={here}>Use this device's place</SideButton>}
          </Flex>
          <Box role="group" aria-label="Towns found" aria-live="polite">
            {latitude === "" &&
              (towns.data ?? []).map((town) => (
                <Choice
                  key={`${town.name}${town.latitude_deg}${town.longitude_deg}`}
                  type="button"
                  onClick={() => choose(town)}
                >
                  {townText(town)}
                </Choice>
              ))}
          </Box>
          {trouble !== null && (
            <Text role="alert" color="accent" fontWeight="600" mt="2">
              {trouble}
            </Text>
          )}
        </Box>
        <Text fontSize="note" color="soft">
          {latitude === ""
            ? `Without a town the sun is that of the chief city of ${timeZone.replaceAll("_", " ")}, this device's time zone.`
            : `Sun and clock of ${place}: ${timeZone.replaceAll("_", " ")}.`}
        </Text>
      </Grid>
    </Card>
  );
}

function townText({ name, region }: Town): string {
  return `${name}, ${region}`;
}

function nearest(latitude_deg: number, longitude_deg: number): Promise<Town> {
  return take(client.GET("/api/v1/towns/nearest", { params: { query: { latitude_deg, longitude_deg } } }));
}
