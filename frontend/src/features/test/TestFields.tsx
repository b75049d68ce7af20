import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { type KeyboardEvent, memo } from "react";
import { useFormContext, useFormState, useWatch } from "react-hook-form";
import type { Choices, LastValue, Measure } from "../../api/types";
import { fieldsOf } from "../../forms/kit";
import { whenText } from "../../lib/times";
import type { Units } from "../../lib/units";
import { Rung } from "./Rungs";
import type { TestDraft } from "./useTestForm";

const { Amount } = fieldsOf<TestDraft>();

interface Problem {
  text: string;
  measure?: Measure | null;
}

interface SlipFieldsProps {
  order: readonly Measure[];
  choices: Choices;
  last: Partial<Record<Measure, LastValue>>;
  zone: string;
  units: Units;
  problems: readonly Problem[];
  doubts: readonly { text: string; measure?: string | null | undefined }[];
}

/** The measures in the kit's order; each shows what it read last, and goes up and down from there by the thumb. Enter goes on to the next. */
export function TestFields(props: SlipFieldsProps) {
  const { order, choices, last, zone, units, problems, doubts } = props;
  const fields = useWatch<TestDraft, "fields">({ name: "fields" });
  const refused = useFormState<TestDraft>().errors.root?.server;
  const nameOf = (measure: Measure) =>
    choices.measures.find((known) => known.key === measure)?.name ?? measure;
  const extra = (Object.keys(fields) as Measure[]).filter(
    (measure) => !order.includes(measure) && (fields[measure] ?? "") !== "",
  );
  return (
    <Grid templateColumns={{ base: "minmax(0,1fr)", md: "1fr 1fr" }} columnGap="6">
      {[...order, ...extra].map((measure) => {
        const problem = problems.find((found) => found.measure === measure)?.text;
        const doubt = doubts.find((found) => found.measure === measure)?.text;
        const wrong = problem ?? (refused?.type === measure ? refused.message : undefined);
        return (
          <Row
            key={measure}
            measure={measure}
            label={
              measure === "temperature_c" ? `Temperature, ${units === "us" ? "°F" : "°C"}` : nameOf(measure)
            }
            text={fields[measure] ?? ""}
            before={last[measure]}
            zone={zone}
            problem={wrong}
            doubt={doubt}
          />
        );
      })}
    </Grid>
  );
}

interface RowProps {
  measure: Measure;
  label: string;
  text: string;
  before: LastValue | undefined;
  zone: string;
  problem: string | undefined;
  doubt: string | undefined;
}

/** One measure; drawn anew only where something of its own has changed. */
const Row = memo(function Row({ measure, label, text, before, zone, problem, doubt }: RowProps) {
  const { setValue } = useFormContext<TestDraft>();
  const rung = {
    label,
    ladder: before?.ladder ?? [],
    text,
    last: before?.text ?? "",
    onText: (typed: string) => setValue(`fields.${measure}`, typed),
  };
  return (
    <Box py="1.5" borderBottom="1px solid" borderColor="hairline">
      <Flex align="center" gap="2">
        <Box flex="1" minW="0">
          <Text fontWeight="650" lineHeight="1.2">
            {label}
          </Text>
          {before !== undefined && (
            <Text fontSize="note" color="soft" lineHeight="1.3" title={whenText(before.at, zone, new Date())}>
              last {before.text}
            </Text>
          )}
        </Box>
        {before !== undefined && <Rung {...rung} by={-1} />}
        <Box w="6.25rem" flexShrink="0" data-narrow>
          <Amount
            name={`fields.${measure}`}
            server={[measure]}
            label={label}
            labelHidden
            saidElsewhere
            enterKeyHint="next"
            data-slip-field
            minH="48px"
            textAlign="center"
            fontSize="figure"
            fontWeight="700"
            borderColor={problem !== undefined || doubt !== undefined ? "accent" : "ink"}
            onKeyDown={toTheNext}
          />
        </Box>
        {before !== undefined && <Rung {...rung} by={1} />}
      </Flex>
      {problem !== undefined && (
        <Text fontSize="note" color="accent" fontWeight="600" role="alert">
          {problem}
        </Text>
      )}
      {doubt !== undefined && problem === undefined && (
        <Text fontSize="note" mt="1" borderLeft="3px solid" borderColor="rope" pl="2" role="status">
          {doubt}
        </Text>
      )}
    </Box>
  );
});

/** Enter goes on to the next empty field; in the last one it saves. */
function toTheNext(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== "Enter") return;
  const all = [...document.querySelectorAll<HTMLInputElement>("input[data-slip-field]")];
  const next = all.slice(all.indexOf(event.currentTarget) + 1).find((field) => field.value === "");
  if (next === undefined) return;
  event.preventDefault();
  next.focus();
}
