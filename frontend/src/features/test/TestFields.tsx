import { Box, chakra, Grid, Text } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import { useFormContext, useFormState, useWatch } from "react-hook-form";
import type { Choices, LastValue, Measure } from "../../api/types";
import { fieldsOf } from "../../forms/kit";
import { whenText } from "../../lib/times";
import type { Units } from "../../lib/units";
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

const Same = chakra("button", {
  base: {
    flexShrink: 0,
    w: "44px",
    h: "44px",
    border: "1.5px solid",
    borderColor: "control",
    borderRadius: "10px",
    bg: "card",
    color: "ink",
    fontSize: "lead",
    fontWeight: "700",
    cursor: "pointer",
    _disabled: { opacity: 0.35, cursor: "default" },
  },
});

/** The measures in the kit's order; each shows what it read last, and takes it again in one tap. Enter goes on to the next. */
export function TestFields(props: SlipFieldsProps) {
  const { order, choices, last, zone, units, problems, doubts } = props;
  const { setValue } = useFormContext<TestDraft>();
  const fields = useWatch<TestDraft, "fields">({ name: "fields" });
  const refused = useFormState<TestDraft>().errors.root?.server;
  const nameOf = (measure: Measure) =>
    choices.measures.find((known) => known.key === measure)?.name ?? measure;
  const extra = (Object.keys(fields) as Measure[]).filter(
    (measure) => !order.includes(measure) && (fields[measure] ?? "") !== "",
  );
  return (
    <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(4, 1fr)" }} gap="4" mt="4" alignItems="start">
      {[...order, ...extra].map((measure) => {
        const problem = problems.find((found) => found.measure === measure)?.text;
        const doubt = doubts.find((found) => found.measure === measure)?.text;
        const wrong = problem ?? (refused?.type === measure ? refused.message : undefined);
        const before = last[measure];
        const label =
          measure === "temperature_c" ? `Temperature, ${units === "us" ? "°F" : "°C"}` : nameOf(measure);
        return (
          <Box key={measure}>
            <Box display="flex" gap="1" alignItems="end">
              <Amount
                name={`fields.${measure}`}
                server={[measure]}
                label={label}
                enterKeyHint="next"
                data-slip-field
                placeholder={before === undefined ? "" : `last ${before.text}`}
                _placeholder={{ fontSize: "note" }}
                problem={problem}
                onKeyDown={toTheNext}
              />
              {before !== undefined && (
                <Same
                  type="button"
                  tabIndex={-1}
                  alignSelf={wrong === undefined ? "end" : "start"}
                  mt={wrong === undefined ? "0" : "1.65rem"}
                  aria-label={`${label}: same as last, ${before.text}`}
                  title={`Same as ${whenText(before.at, zone, new Date())}`}
                  disabled={(fields[measure] ?? "") !== ""}
                  onClick={() => setValue(`fields.${measure}`, before.text)}
                >
                  =
                </Same>
              )}
            </Box>
            {doubt !== undefined && problem === undefined && (
              <Text fontSize="note" mt="1" borderLeft="3px solid" borderColor="rope" pl="2" role="status">
                {doubt}
              </Text>
            )}
          </Box>
        );
      })}
    </Grid>
  );
}

/** Enter goes on to the next empty field; in the last one it saves. */
function toTheNext(event: KeyboardEvent<HTMLInputElement>): void {
  if (event.key !== "Enter") return;
  const all = [...document.querySelectorAll<HTMLInputElement>("input[data-slip-field]")];
  const next = all.slice(all.indexOf(event.currentTarget) + 1).find((field) => field.value === "");
  if (next === undefined) return;
  event.preventDefault();
  next.focus();
}
