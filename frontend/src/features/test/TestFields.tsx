import { Box, chakra, Grid, Text } from "@chakra-ui/react";
import type { KeyboardEvent } from "react";
import type { Choices, LastValue, Measure } from "../../api/types";
import { TextField } from "../../components/TextField";
import { whenText } from "../../lib/times";
import type { Units } from "../../lib/units";
import type { Fields } from "./useTestForm";

interface Problem {
  text: string;
  measure?: Measure | null;
}

interface SlipFieldsProps {
  order: readonly Measure[];
  choices: Choices;
  fields: Fields;
  last: Partial<Record<Measure, LastValue>>;
  zone: string;
  units: Units;
  problems: readonly Problem[];
  doubts: readonly { text: string; measure?: string | null | undefined }[];
  failed: { message: string; field: string | null } | null;
  onField: (measure: Measure, text: string) => void;
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
  const { order, choices, fields, last, zone, units, problems, doubts, failed, onField } = props;
  const nameOf = (measure: Measure) =>
    choices.measures.find((known) => known.key === measure)?.name ?? measure;
  const extra = (Object.keys(fields) as Measure[]).filter((measure) => !order.includes(measure));
  return (
    <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(4, 1fr)" }} gap="4" mt="4" alignItems="start">
      {[...order, ...extra].map((measure) => {
        const problem = problems.find((found) => found.measure === measure)?.text;
        const doubt = doubts.find((found) => found.measure === measure)?.text;
        const refused = failed?.field === measure ? failed.message : undefined;
        const before = last[measure];
        const label =
          measure === "temperature_c" ? `Temperature, ${units === "us" ? "°F" : "°C"}` : nameOf(measure);
        return (
          <Box key={measure}>
            <Box display="flex" gap="1" alignItems="end">
              <TextField
                label={label}
                inputMode="decimal"
                enterKeyHint="next"
                name={measure}
                data-slip-field
                value={fields[measure] ?? ""}
                placeholder={before === undefined ? "" : `last ${before.text}`}
                _placeholder={{ fontSize: "note" }}
                problem={problem ?? refused}
                onText={(text) => onField(measure, text)}
                onKeyDown={toTheNext}
              />
              {before !== undefined && (
                <Same
                  type="button"
                  tabIndex={-1}
                  alignSelf={problem === undefined && refused === undefined ? "end" : "start"}
                  mt={problem === undefined && refused === undefined ? "0" : "6"}
                  aria-label={`${label}: same as last, ${before.text}`}
                  title={`Same as ${whenText(before.at, zone, new Date())}`}
                  disabled={(fields[measure] ?? "") !== ""}
                  onClick={() => onField(measure, before.text)}
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
