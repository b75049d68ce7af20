import { Box, Flex, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { DayAhead, StopAhead } from "../../api/firm";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { SelectField } from "../../components/SelectField";
import { PlainLink } from "../../components/TextLink";
import { dayText } from "../../lib/days";
import { useStore } from "../../lib/store";
import { hoursText } from "../../lib/times";
import { distanceText, unitsStore } from "../../lib/units";
import type { useFirm } from "./useFirm";

interface DayCardProps {
  one: DayAhead;
  who: string;
  names: ReadonlyMap<string, string>;
  people: ReadonlyMap<string, string>;
  /** The days of the week that a stop can be moved to. */
  days: readonly DayAhead[];
  /** None for who only reads the plan. */
  firm: ReturnType<typeof useFirm> | null;
}

const WHY: Record<StopAhead["why"], string> = {
  weekly: "",
  moved: "moved here",
  away: "in another’s place",
  once: "once",
  return: "come back",
};
const DRAGGED = "text/kumpan-stop";

/** One technician's day: its stops, what it takes, and each stop's way to another day, by drag or by keys. */
export function DayCard({ one, who, names, people, days, firm }: DayCardProps) {
  const units = useStore(unitsStore);
  const [over, setOver] = useState(false);

  function move(pool: string, from: string, to: { day: string; technician: string }) {
    const said = `${names.get(pool)}: ${dayText(to.day)}, ${people.get(to.technician)}.`;
    void firm?.move({ pool_id: pool, from_day: from, to_day: to.day, technician_id: to.technician }, said);
  }

  return (
    <Card
      py="3"
      px="4"
      borderColor={over ? "rope" : "hairline"}
      onDragOver={(event) => {
        if (firm === null || !event.dataTransfer.types.includes(DRAGGED)) return;
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        setOver(false);
        const [pool, from] = event.dataTransfer.getData(DRAGGED).split("|");
        if (pool && from) move(pool, from, one);
      }}
    >
      <Flex justify="space-between" gap="3" align="baseline">
        <Text fontWeight="700">{who}</Text>
        <Text
          fontSize="note"
          color={one.too_long ? "accent" : "soft"}
          fontWeight={one.too_long ? "700" : "400"}
        >
          {hoursText(Math.round(one.stop_min + one.drive_min))}, {distanceText(one.km, units)}
          {one.too_long && ": too long"}
        </Text>
      </Flex>
      <Box as="ol" listStyleType="none" p="0" m="0" mt="1">
        {one.stops.map((stop) => (
          <Stop
            key={stop.pool}
            stop={stop}
            name={names.get(stop.pool) ?? "A pool"}
            day={one.day}
            others={days.filter((other) => other.day !== one.day || other.technician !== one.technician)}
            people={people}
            onMove={firm === null ? undefined : (to) => move(stop.pool, one.day, to)}
            onUndo={
              firm === null || stop.entry === null ? undefined : () => void firm.undo(stop.entry as string)
            }
          />
        ))}
      </Box>
    </Card>
  );
}

interface StopProps {
  stop: StopAhead;
  name: string;
  day: string;
  others: readonly DayAhead[];
  people: ReadonlyMap<string, string>;
  onMove: ((to: { day: string; technician: string }) => void) | undefined;
  onUndo: (() => void) | undefined;
}

function Stop({ stop, name, day, others, people, onMove, onUndo }: StopProps) {
  const [open, setOpen] = useState(false);
  const why = [WHY[stop.why], stop.from_day === null ? "" : `from ${dayText(stop.from_day)}`, ...stop.extra];
  const words = why.filter((word) => word !== "").join(", ");
  return (
    <Box
      as="li"
      py="1"
      borderTop="1px solid"
      borderColor="hairline"
      draggable={onMove !== undefined}
      onDragStart={(event) => event.dataTransfer.setData(DRAGGED, `${stop.pool}|${day}`)}
    >
      <Flex justify="space-between" align="center" gap="2">
        <Box minW="0">
          <PlainLink to={`/pools/${stop.pool}`} color="ink">
            {name}
          </PlainLink>
          <Text fontSize="note" color="soft">
            {hoursText(Math.round(stop.minutes))}
            {words && ` · ${words}`}
          </Text>
        </Box>
        <Flex gap="1" flexShrink={0} data-noprint>
          {onUndo && (
            <SideButton px="3" aria-label={`Take back: ${name}`} onClick={onUndo}>
              Undo
            </SideButton>
          )}
          {onMove && (
            <SideButton
              px="3"
              aria-label={`Move ${name}`}
              aria-expanded={open}
              onClick={() => setOpen(!open)}
            >
              Move
            </SideButton>
          )}
        </Flex>
      </Flex>
      {open && onMove && (
        <Box py="2">
          <SelectField
            label={`${name} to`}
            value=""
            options={[
              { value: "", label: "Choose a day" },
              ...others.map((other) => ({
                value: `${other.day}|${other.technician}`,
                label: `${dayText(other.day)}, ${people.get(other.technician) ?? ""}`,
              })),
            ]}
            onPick={(picked) => {
              const [to, technician] = picked.split("|");
              if (to && technician) onMove({ day: to, technician });
              setOpen(false);
            }}
          />
        </Box>
      )}
    </Box>
  );
}
