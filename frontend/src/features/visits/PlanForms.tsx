import { Flex, Grid, Heading, Text } from "@chakra-ui/react";
import type { FirmView } from "../../api/firm";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { dayText } from "../../lib/days";
import type { useFirm } from "./useFirm";

interface FormProps {
  view: FirmView;
  firm: ReturnType<typeof useFirm>;
}

interface Away {
  technician_id: string;
  first: string;
  last: string;
  note: string;
}
const away = fieldsOf<Away>();

/** Somebody does not drive for some days; the plan gives their stops to others. */
export function AwayForm({ view, firm }: FormProps) {
  const start = { technician_id: "", first: view.today, last: view.today, note: "" };
  const kit = useKit<Away>({
    start,
    send: async (values, form) => {
      await firm.away(values);
      form.reset(start);
    },
  });
  return (
    <Card as="section" aria-label="Somebody is away">
      <Heading as="h2" fontSize="lead" mb="2">
        Somebody is away
      </Heading>
      {view.absences.map(({ id, body }) => (
        <Flex key={id} justify="space-between" align="center" gap="3" py="1">
          <Text>
            {view.technicians.find((one) => one.id === body.technician_id)?.name}, {dayText(body.first)} to{" "}
            {dayText(body.last)}
            {body.note && `: ${body.note}`}
          </Text>
          <SideButton px="3" aria-label="Take this absence back" onClick={() => void firm.undo(id)}>
            Undo
          </SideButton>
        </Flex>
      ))}
      <KitForm kit={kit}>
        <Grid gap="3" mt="2">
          <away.Select name="technician_id" label="Who" options={whoOf(view)} />
          <Grid templateColumns={{ base: "minmax(0,1fr) minmax(0,1fr)", lg: "minmax(0,1fr)" }} gap="3">
            <away.Field name="first" label="First day" type="date" />
            <away.Field name="last" label="Last day" type="date" />
          </Grid>
          <away.Field name="note" label="Why, if it matters" />
          <SideButton type="submit">Plan without</SideButton>
          <FormProblem shown={["technician_id", "first", "last", "note"]} />
        </Grid>
      </KitForm>
    </Card>
  );
}

interface Once {
  pool_id: string;
  day: string;
  technician_id: string;
  minutes: string;
  what: string;
}
const once = fieldsOf<Once>();
const HOW_LONG = [
  { value: "20", label: "20 min" },
  { value: "30", label: "30 min" },
  { value: "60", label: "1 h" },
  { value: "120", label: "2 h" },
  { value: "240", label: "4 h" },
] as const;

/** Work at one pool on one day, beside its weekly stop. */
export function OnceForm({ view, firm }: FormProps) {
  const start = { pool_id: "", day: view.today, technician_id: "", minutes: "30", what: "" };
  const kit = useKit<Once>({
    start,
    send: async ({ pool_id, day, technician_id, minutes, what }, form) => {
      await firm.once({
        pool_id,
        day,
        technician_id: technician_id === "" ? null : technician_id,
        minutes: Number(minutes),
        what,
      });
      form.reset(start);
    },
  });
  const pools = view.pools.map(({ id, name }) => ({ value: id, label: name }));
  return (
    <Card as="section" aria-label="Work once">
      <Heading as="h2" fontSize="lead" mb="2">
        Work once
      </Heading>
      <KitForm kit={kit}>
        <Grid gap="3">
          <once.Select name="pool_id" label="Pool" options={[{ value: "", label: "Choose" }, ...pools]} />
          <once.Field name="what" label="What" placeholder="New pump, leak, estimate" />
          <Grid templateColumns={{ base: "minmax(0,1fr) minmax(0,1fr)", lg: "minmax(0,1fr)" }} gap="3">
            <once.Field name="day" label="Day" type="date" />
            <once.Select name="minutes" label="How long" options={HOW_LONG} />
          </Grid>
          <once.Select
            name="technician_id"
            label="By whom"
            options={[{ value: "", label: "Who passes nearest" }, ...whoOf(view).slice(1)]}
          />
          <SideButton type="submit">Plan it</SideButton>
          <FormProblem shown={["pool_id", "what", "day", "technician_id", "minutes"]} />
        </Grid>
      </KitForm>
    </Card>
  );
}

function whoOf(view: FirmView) {
  return [
    { value: "", label: "Choose" },
    ...view.technicians.map(({ id, name }) => ({ value: id, label: name })),
  ];
}
