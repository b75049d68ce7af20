import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import { takeBack } from "../../api/entries";
import type { EquipmentView } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { dayText } from "../../lib/days";
import { personId } from "../../lib/person";
import { dayName } from "../../lib/times";

type Machine = EquipmentView["machines"][number];
type Kind = EquipmentView["kinds"][number]["kind"];
const stamp = () => ({ id: crypto.randomUUID(), at: null, person_id: personId() });

interface MachinesProps {
  view: EquipmentView;
  poolId: string;
  zone: string;
}

/** Cleaners, feeders, covers, heaters and more, each with its care on the list and its parts in the log. */
export function Machines({ view, poolId, zone }: MachinesProps) {
  const tell = useTell();
  return (
    <Card as="section" aria-label="More equipment">
      <Heading as="h2" fontSize="lead" mb="2">
        More equipment
      </Heading>
      <Text color="soft" mb="3">
        Each machine brings its care to the list: its own filter, bag, o-ring, service.
      </Text>
      {view.machines.map((machine) => (
        <OneMachine
          key={machine.machine_id}
          machine={machine}
          poolId={poolId}
          zone={zone}
          onGone={() =>
            void tell(
              poolId,
              { ...asSent(machine), gone: true },
              `${machine.label || machine.name} is off the list.`,
            )
          }
        />
      ))}
      <AddMachine kinds={view.kinds} poolId={poolId} />
      <Box borderTop="1px solid" borderColor="hairline" mt="4" pt="3">
        <Text fontWeight="700">Parts of pump, filter and cell</Text>
        <Parts parts={view.parts} zone={zone} />
        <PartForm poolId={poolId} machineId={null} what="pump, filter and cell" />
      </Box>
    </Card>
  );
}

function asSent(machine: Machine) {
  const { machine_id, kind, label, since, note } = machine;
  return { machine_id, kind, label, since, note, gone: false };
}

/** Tell of a machine; the list of care is made anew, and it can be taken back. */
function useTell() {
  const queries = useQueryClient();
  return async (poolId: string, what: ReturnType<typeof asSent>, said: string) => {
    const body = { ...stamp(), ...what };
    const fresh = () => queries.invalidateQueries({ queryKey: ["pool", poolId] });
    await take(
      client.POST("/api/v1/pools/{pool_id}/machines", { params: { path: { pool_id: poolId } }, body }),
    );
    notify(said, () => void takeBack(body.id, "undone under Equipment").then(fresh));
    await fresh();
  };
}

interface OneMachineProps {
  machine: Machine;
  poolId: string;
  zone: string;
  onGone: () => void;
}

function OneMachine({ machine, poolId, zone, onGone }: OneMachineProps) {
  const called = machine.label || machine.name;
  return (
    <Box as="article" aria-label={called} borderTop="1px solid" borderColor="hairline" py="3">
      <Flex justify="space-between" gap="3" align="start">
        <Box>
          <Text fontWeight="650">{called}</Text>
          <Text fontSize="note" color="soft">
            {machine.label && `${machine.name}. `}
            {machine.since !== null && `Since ${dayText(machine.since)}. `}
            {machine.note}
          </Text>
        </Box>
        <SideButton px="3" flexShrink={0} aria-label={`${called} is gone`} onClick={onGone}>
          Gone
        </SideButton>
      </Flex>
      <Parts parts={machine.parts} zone={zone} />
      <PartForm poolId={poolId} machineId={machine.machine_id} what={called} />
    </Box>
  );
}

function Parts({ parts, zone }: { parts: Machine["parts"]; zone: string }) {
  return parts.map(({ entry_id, at, part, note }) => (
    <Text key={entry_id} fontSize="note">
      {dayName(at, zone)}: {part}
      {note && `, ${note}`}
    </Text>
  ));
}

interface Part {
  part: string;
}
const partField = fieldsOf<Part>();

function PartForm({ poolId, machineId, what }: { poolId: string; machineId: string | null; what: string }) {
  const queries = useQueryClient();
  const [open, setOpen] = useState(false);
  const kit = useKit<Part>({
    start: { part: "" },
    send: async ({ part }, form) => {
      const body = { ...stamp(), part, machine_id: machineId, note: "" };
      await take(
        client.POST("/api/v1/pools/{pool_id}/parts", { params: { path: { pool_id: poolId } }, body }),
      );
      form.reset({ part: "" });
      setOpen(false);
      notify(`Noted: ${part}.`, () => void takeBack(body.id, "undone under Equipment"));
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    },
  });
  if (!open)
    return (
      <SideButton mt="2" aria-label={`Part replaced: ${what}`} onClick={() => setOpen(true)}>
        Part replaced
      </SideButton>
    );
  return (
    <KitForm kit={kit}>
      <Flex gap="3" align="end" wrap="wrap" mt="2">
        <Box flex="1" minW="11rem">
          <partField.Field name="part" label="Which part" placeholder="O-ring, wheel, gauge" />
        </Box>
        <SideButton type="submit">Note it</SideButton>
      </Flex>
      <FormProblem shown={["part"]} />
    </KitForm>
  );
}

interface NewMachine {
  kind: string;
  label: string;
  since: string;
  note: string;
}
const added = fieldsOf<NewMachine>();
const START: NewMachine = { kind: "", label: "", since: "", note: "" };

function AddMachine({ kinds, poolId }: { kinds: EquipmentView["kinds"]; poolId: string }) {
  const tell = useTell();
  const kit = useKit<NewMachine>({
    start: START,
    send: async ({ kind, label, since, note }, form) => {
      const named = kinds.find((one) => one.kind === kind);
      await tell(
        poolId,
        {
          machine_id: crypto.randomUUID(),
          kind: kind as Kind,
          label,
          since: since === "" ? null : since,
          note,
          gone: false,
        },
        `${label || named?.name} is on the list.`,
      );
      form.reset(START);
    },
  });
  return (
    <KitForm kit={kit}>
      <Grid gap="3" borderTop="1px solid" borderColor="hairline" pt="3">
        <Grid templateColumns={{ base: "minmax(0,1fr)", sm: "minmax(0,1fr) minmax(0,1fr)" }} gap="3">
          <added.Select
            name="kind"
            label="Machine"
            options={[
              { value: "", label: "Choose" },
              ...kinds.map(({ kind, name }) => ({ value: kind, label: name })),
            ]}
          />
          <added.Field name="label" label="Your name for it" placeholder="The blue one" />
          <added.Field name="since" label="Since" type="date" />
          <added.Field name="note" label="A word on it" />
        </Grid>
        <SideButton type="submit">Add it</SideButton>
        <FormProblem shown={["kind", "label", "since", "note"]} />
      </Grid>
    </KitForm>
  );
}
