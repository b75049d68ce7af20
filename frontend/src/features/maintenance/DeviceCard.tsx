import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import type { EquipmentView } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { personId } from "../../lib/person";
import { pressureText } from "../../lib/plant";
import { hoursText } from "../../lib/times";
import { grouped, rainText, temperatureText, type Units } from "../../lib/units";

const { Field } = fieldsOf<{ address: string }>();

type Device = EquipmentView["device"];

/** What the controller says, beside the hand tests and never above them. */
export function DeviceCard({ device, poolId, units }: { device: Device; poolId: string; units: Units }) {
  const queries = useQueryClient();
  const said = device.last ?? null;
  const kit = useKit<{ address: string }>({
    start: { address: device.address },
    send: ({ address }) => link(address),
  });
  const address = kit.form.watch("address");

  async function link(to: string) {
    await take(
      client.POST("/api/v1/pools/{pool_id}/device", {
        params: { path: { pool_id: poolId } },
        body: { id: crypto.randomUUID(), at: null, person_id: personId(), device: "controller", address: to },
      }),
    );
    await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    notify(
      to === "" ? "Not polled any more." : "Polled from now on; the first reading comes within a minute.",
    );
  }
  /** One of the ready answers: as if it had been typed. */
  function choose(to: string) {
    kit.form.setValue("address", to);
    void kit.save();
  }

  const rows: [string, string | null][] = said
    ? [
        ["Salt by the unit", said.salinity_mg_l == null ? null : `${grouped(said.salinity_mg_l)} ppm`],
        ["Output", said.output_percent == null ? null : `${said.output_percent.toFixed(0)} %`],
        ["Flow", said.flow == null ? null : said.flow ? "on" : "off"],
        ["Pressure", said.pressure_kpa == null ? null : pressureText(said.pressure_kpa, units)],
        ["Water", said.water_c == null ? null : temperatureText(said.water_c, units)],
        ["Air", said.air_c == null ? null : temperatureText(said.air_c, units)],
        ["Rain today", said.rain_mm == null ? null : rainText(said.rain_mm, units)],
        [
          "Lamps",
          said.lamps.length === 0 ? "none" : said.lamps.map((lamp) => lamp.replaceAll("_", " ")).join(", "),
        ],
      ]
    : [];
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Controller and weather
      </Heading>
      {device.address === "" ? (
        <Text mb="3">
          A chlorinator’s controller or a weather station on this machine can be polled. What it says stands
          beside the hand tests, never above them.
        </Text>
      ) : (
        <Text mb="2" color="soft">
          {device.silent_min == null
            ? "Nothing heard yet."
            : device.silent_min < 3
              ? "Heard just now."
              : `Silent for ${hoursText(device.silent_min)}.`}{" "}
          A hand test goes before the unit.
        </Text>
      )}
      <Grid
        as="dl"
        templateColumns={{ base: "minmax(0,1fr)", sm: "repeat(2, minmax(0,1fr))" }}
        columnGap="4"
        rowGap="1"
        m="0"
      >
        {rows
          .filter(([, value]) => value !== null)
          .map(([name, value]) => (
            <Flex
              key={name}
              justify="space-between"
              gap="3"
              borderBottom="1px solid"
              borderColor="hairline"
              py="1"
            >
              <Text as="dt" color="soft" fontSize="note">
                {name}
              </Text>
              <Text as="dd" m="0" fontWeight="600">
                {value}
              </Text>
            </Flex>
          ))}
      </Grid>
      <KitForm kit={kit} data-noprint>
        <Flex gap="2" align="end" mt="4" wrap="wrap">
          <Box flex="1" minW="12rem">
            <Field
              name="address"
              label="Address on this machine"
              placeholder="http://127.0.0.1:9000/controller"
            />
          </Box>
          <SideButton type="submit" disabled={address === device.address}>
            Poll it
          </SideButton>
          {device.address === "" ? (
            <SideButton onClick={() => choose("stand-in")}>Use the simulated one</SideButton>
          ) : (
            <SideButton onClick={() => choose("")}>Stop polling</SideButton>
          )}
        </Flex>
        <FormProblem shown={["address"]} />
      </KitForm>
    </Card>
  );
}
