import { Grid, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { client, take } from "../../api/client";
import { type Letter, type MailChosen, mailChoiceQuery } from "../../api/outgoing";
import { notify } from "../../components/notice";
import { PickMany } from "../../components/Pick";
import { Failed } from "../../components/States";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { clock } from "../../lib/times";
import { unitsStore } from "../../lib/units";
import { Part } from "./AccountPage";
import { Send } from "./SignInPage";

const LETTERS: readonly { value: Letter; label: string }[] = [
  { value: "report", label: "A report after each visit" },
  { value: "due", label: "What is due today" },
  { value: "step", label: "A step of a plan, once its wait is over" },
  { value: "swim", label: "A pool that is open for swimming again" },
  { value: "digest", label: "The week, on Mondays" },
];
const HOURS = Array.from({ length: 24 }, (_, hour) => ({ value: String(hour), label: hourText(hour) }));

/** "7:00 AM", as clock times are shown everywhere. */
function hourText(hour: number): string {
  return clock(new Date(Date.UTC(2026, 0, 1, hour)).toISOString(), "UTC");
}

interface Chosen {
  address: string;
  kinds: string[];
  hour: string;
}
const { Field, Select } = fieldsOf<Chosen>();

/** What comes by mail: each person chooses, and each message can end it. */
export function MailChoices() {
  const found = useQuery(mailChoiceQuery());
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return found.data ? <Choose chosen={found.data} /> : null;
}

function Choose({ chosen }: { chosen: MailChosen }) {
  const queries = useQueryClient();
  const kit = useKit<Chosen>({
    start: { address: chosen.address, kinds: [...chosen.kinds], hour: String(chosen.hour) },
    send: async ({ address, kinds, hour }) => {
      await take(
        client.POST("/api/v1/mail-choice", {
          body: {
            address,
            kinds: LETTERS.map(({ value }) => value).filter((one) => kinds.includes(one)),
            hour: HOURS.findIndex(({ value }) => value === hour),
            units: unitsStore.get(),
            time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["mail-choice"] });
      notify(
        kinds.length === 0
          ? "No messages come."
          : `They come to ${address === "" ? "your devices" : address}.`,
      );
    },
  });
  const kinds = kit.form.watch("kinds");
  return (
    <Part title="Messages">
      <KitForm kit={kit}>
        <Grid gap="3">
          <PickMany
            label="What comes"
            options={LETTERS}
            values={kinds}
            onToggle={(one) =>
              kit.form.setValue(
                "kinds",
                kinds.includes(one) ? kinds.filter((other) => other !== one) : [...kinds, one],
              )
            }
          />
          <Field
            name="address"
            label="By mail to this address"
            help="Leave it empty where they come to a device only."
            type="email"
            autoComplete="email"
          />
          <Select name="hour" label="From this hour of your day" options={HOURS} />
          <Text fontSize="note" color="soft">
            Every mail has a link that ends it. Reports and weeks come by mail only.
          </Text>
          <FormProblem shown={["address"]} />
          <Send action="Keep this" />
        </Grid>
      </KitForm>
    </Part>
  );
}
