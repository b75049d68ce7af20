import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import type { EquipmentView } from "../../api/types";
import { Card } from "../../components/Card";
import { PlainLink } from "../../components/TextLink";
import { valueText } from "../../lib/measures";
import { hoursText } from "../../lib/plant";
import { monthAndYear } from "../../lib/times";
import { grouped } from "../../lib/units";
import { FaultTrees } from "./FaultTrees";
import { Lamps } from "./Lamps";

type Cell = NonNullable<EquipmentView["cell"]>;

/** What the cell makes against what the pool uses, both knobs, its scale and its life. */
export function CellCard({ cell, poolId, zone }: { cell: Cell; poolId: string; zone: string }) {
  const { bench, setting, life } = cell;
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Cell
      </Heading>
      {bench === null || setting === null ? (
        <Text>
          Tell the cell’s output, setting and hours once:{" "}
          <PlainLink to={`/pools/${poolId}/log`}>in the log</PlainLink>, under what happened.
        </Text>
      ) : (
        <>
          <Balance makes={bench.makes_mg_l_day} uses={bench.uses_mg_l_day ?? null} most={bench.boost_mg_l} />
          <Text mt="2">
            Now {setting.percent.toFixed(0)} % for {hoursText(setting.hours_per_day)} a day.
          </Text>
          {bench.settings.length > 0 && (
            <Box mt="3">
              <Text fontWeight="700">What holds this pool</Text>
              <Grid
                as="ul"
                listStyleType="none"
                p="0"
                m="0"
                templateColumns="repeat(auto-fit, minmax(6.5rem, 1fr))"
                gap="2"
                mt="1"
              >
                {bench.settings.map((knobs) => (
                  <Box
                    as="li"
                    key={knobs.hours}
                    border="1px solid"
                    borderColor="hairline"
                    borderRadius="8px"
                    p="2"
                  >
                    <Text fontSize="figure" fontWeight="700">
                      {Math.ceil(knobs.percent)} %
                    </Text>
                    <Text fontSize="note" color="soft">
                      for {hoursText(knobs.hours)} a day
                    </Text>
                  </Box>
                ))}
              </Grid>
            </Box>
          )}
          <Text mt="3">{bench.boost_text}</Text>
          {bench.findings.map((finding) => (
            <Text key={finding.code} mt="2" fontWeight="600">
              {finding.text}
            </Text>
          ))}
        </>
      )}
      {cell.index_text !== null && <Text mt="3">{cell.index_text}</Text>}
      {life !== null && (
        <Text mt="2">
          Has run about {grouped(Math.round(life.run_h))} of {grouped(Math.round(life.rated_h))} h
          {life.ends_at !== null && `; at this pace until about ${monthAndYear(life.ends_at, zone)}`}. Acid
          baths this season: {cell.washes}.
        </Text>
      )}
      <Lamps lamps={cell.lamps} poolId={poolId} />
      <FaultTrees
        trees={cell.trees}
        poolId={poolId}
        begin={cell.lamps.find(({ lit }) => lit)?.tree ?? null}
      />
    </Card>
  );
}

/** Two bars on one scale: made and used, mg/L a day. */
function Balance({ makes, uses, most }: { makes: number; uses: number | null; most: number }) {
  const scale = Math.max(makes, uses ?? 0, most, 0.1);
  const rows: [string, number | null, string][] = [
    ["Makes", makes, "rope"],
    ["Pool uses", uses, "ink"],
  ];
  return (
    <Box>
      {rows.map(([name, value, color]) => (
        <Grid
          key={name}
          templateColumns="5rem minmax(0,1fr) 7rem"
          columnGap="3"
          alignItems="center"
          minH="32px"
        >
          <Text>{name}</Text>
          <Box h="14px" borderRadius="7px" bg="band" position="relative" aria-hidden="true">
            {value !== null && (
              <Box h="14px" borderRadius="7px" bg={color} style={{ width: `${(value / scale) * 100}%` }} />
            )}
          </Box>
          <Text textAlign="right" fontWeight="700">
            {value === null ? "not known" : `${valueText("free_chlorine", value)} ppm a day`}
          </Text>
        </Grid>
      ))}
    </Box>
  );
}
