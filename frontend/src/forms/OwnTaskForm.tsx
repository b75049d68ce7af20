import { Grid } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { client, take } from "../api/client";
import { SideButton } from "../components/Button";
import { notify } from "../components/notice";
import { personId } from "../lib/person";
import { FormProblem, fieldsOf, KitForm, useKit } from "./kit";

interface OwnTask {
  title: string;
  when: string;
  months: string;
  note: string;
}
const task = fieldsOf<OwnTask>();
const START: OwnTask = { title: "", when: "days|7", months: "", note: "" };

const WHEN = [
  { value: "days|1", label: "Every day" },
  { value: "days|7", label: "Every week" },
  { value: "days|14", label: "Every two weeks" },
  { value: "days|30", label: "Every month" },
  { value: "days|91", label: "Every three months" },
  { value: "days|182", label: "Twice a year" },
  { value: "days|365", label: "Once a year" },
  { value: "weekday|0", label: "Mondays" },
  { value: "weekday|1", label: "Tuesdays" },
  { value: "weekday|2", label: "Wednesdays" },
  { value: "weekday|3", label: "Thursdays" },
  { value: "weekday|4", label: "Fridays" },
  { value: "weekday|5", label: "Saturdays" },
  { value: "weekday|6", label: "Sundays" },
  { value: "after|storm", label: "After a storm" },
  { value: "after|heavy_use", label: "After many swimmers" },
  { value: "after|leaves", label: "After leaves came down" },
  { value: "after|power_cut", label: "After a power cut" },
] as const;
const MONTHS = [
  { value: "", label: "All year" },
  { value: "4,5,6,7,8,9,10", label: "April to October" },
  { value: "3,4,5", label: "Spring" },
  { value: "6,7,8", label: "Summer" },
  { value: "9,10,11", label: "Autumn" },
  { value: "12,1,2", label: "Winter" },
] as const;

/** Which of the three times was picked, as the server takes them. */
function timeOf(when: string) {
  const [kind, value = ""] = when.split("|");
  return {
    days: kind === "days" ? Number(value) : null,
    weekday: kind === "weekday" ? Number(value) : null,
    after: kind === "after" ? (value as "storm" | "heavy_use" | "leaves" | "power_cut") : null,
  };
}

/** A task of one's own, for one pool or for many; the same title again changes it. */
export function OwnTaskForm({ pools, button }: { pools: readonly string[]; button: string }) {
  const queries = useQueryClient();
  const kit = useKit<OwnTask>({
    start: START,
    send: async ({ title, when, months, note }, form) => {
      const body = {
        id: crypto.randomUUID(),
        at: null,
        person_id: personId(),
        pool_ids: [...pools],
        title,
        ...timeOf(when),
        months: months === "" ? [] : months.split(",").map(Number),
        note,
      };
      await take(client.POST("/api/v1/care/tasks", { body }));
      notify(
        pools.length === 1 ? `On the list: ${title}.` : `On the lists of ${pools.length} pools: ${title}.`,
      );
      form.reset(START);
      await queries.invalidateQueries({ queryKey: ["pool"] });
    },
  });
  return (
    <KitForm kit={kit}>
      <Grid gap="3">
        <task.Field name="title" label="What" placeholder="Oil the gate’s hinge" />
        <Grid templateColumns={{ base: "1fr", sm: "1fr 1fr" }} gap="3">
          <task.Select name="when" label="When" options={WHEN} server={["days", "weekday", "after"]} />
          <task.Select name="months" label="In" options={MONTHS} />
        </Grid>
        <task.Field name="note" label="A word on it" />
        <SideButton type="submit">{button}</SideButton>
        <FormProblem shown={["title", "days", "weekday", "after", "months", "note"]} />
      </Grid>
    </KitForm>
  );
}
