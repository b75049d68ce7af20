import { Box, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { preferencesQuery } from "../../api/queries";
import type { EquipmentView } from "../../api/types";
import { Card } from "../../components/Card";
import { hoursText, minuteClock } from "../../lib/plant";

type Bench = EquipmentView["circulation"];
type Window = Bench["windows"][number];

/** The pump's day on a strip of 24 hours: as it is, and as it would fit; turnovers, hours, cost. */
export function CirculationCard({ bench, children }: { bench: Bench; children?: ReactNode }) {
  const habits = useQuery(preferencesQuery());
  const currency = habits.data?.currency ?? "";
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="2">
        Circulation
      </Heading>
      <Text>
        {bench.windows.length === 0
          ? "Computed with 8 h a day; set the timer’s windows below."
          : hoursText(bench.hours)}
        {bench.windows.length > 0 && " a day"}
        {bench.turnovers !== null && `, ${bench.turnovers.toFixed(1)} turnovers`}
        {bench.turnover_h !== null && ` of ${hoursText(bench.turnover_h)}`}
        {bench.kwh_day !== null && `, ${bench.kwh_day.toFixed(1)} kWh`}
        {bench.cost_day !== null && `, ${currency}${bench.cost_day.toFixed(2)} a day`}
        {bench.windows.length > 0 && "."}
      </Text>
      <Strip name="Now" windows={bench.windows} />
      <Strip name="Would fit" windows={bench.suggested} />
      <Text fontSize="note" color="soft" mt="2">
        {bench.suggested
          .map((one) => `${minuteClock(one.start_min)} to ${minuteClock(one.end_min)}`)
          .join(", ")}
        .{" "}
        {bench.suggested.length === 2
          ? "Two blocks out of direct sun; others run by day."
          : "In one block by day, so that the cell chlorinates while the sun takes chlorine."}
      </Text>
      {bench.findings.map((finding) => (
        <Text key={finding.code} mt="2" fontWeight="600">
          {finding.text}
        </Text>
      ))}
      {children}
    </Card>
  );
}

function Strip({ name, windows }: { name: string; windows: readonly Window[] }) {
  const bars = windows.flatMap(({ start_min, end_min }) =>
    end_min > start_min
      ? [[start_min, end_min] as const]
      : [[start_min, 1440] as const, [0, end_min] as const],
  );
  return (
    <Box mt="3">
      <Text fontSize="note" color="soft">
        {name}
      </Text>
      <Box position="relative" h="26px" bg="band" borderRadius="6px" overflow="hidden" aria-hidden="true">
        <Box position="absolute" top="0" bottom="0" left="33.3%" w="41.7%" bg="paper" opacity="0.6" />
        {bars.map(([start, end]) => (
          <Box
            key={start}
            position="absolute"
            top="5px"
            bottom="5px"
            bg="ink"
            borderRadius="4px"
            style={{ left: `${(start / 1440) * 100}%`, width: `${((end - start) / 1440) * 100}%` }}
          />
        ))}
      </Box>
      <Box display="flex" justifyContent="space-between" fontSize="note" color="soft" aria-hidden="true">
        {["0", "6", "12", "18", "24"].map((hour) => (
          <span key={hour}>{hour}</span>
        ))}
      </Box>
    </Box>
  );
}
