import { Box, chakra, Grid, Text } from "@chakra-ui/react";
import type { Choices, Measure } from "../../api/types";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import { nameOf } from "../../lib/measures";
import type { PoolForm, RangeText } from "./form";
import { OWN_MEASURES } from "./form";

interface RulesProps {
  form: PoolForm;
  set: (part: Partial<PoolForm>) => void;
  choices: Choices;
  problem: (field: string) => string | null;
}

/** By which ranges the pool is judged, and the answers where practitioners differ. */
export function Rules({ form, set, choices, problem }: RulesProps) {
  return (
    <>
      <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
        <SelectField
          label="Ranges"
          value={form.school}
          options={choices.schools.map(({ key, name }) => ({ value: key, label: name }))}
          onPick={(school) => set({ school })}
          problem={problem("school")}
        />
        <TextField
          label="Swim limit of free chlorine, ppm"
          help="Empty means the ranges' own. The product's label goes before it."
          inputMode="decimal"
          value={form.swimLimit}
          problem={problem("swim_limit_mg_l")}
          onText={(swimLimit) => set({ swimLimit })}
        />
      </Grid>
      <chakra.details open={Object.keys(form.choices).length > 0}>
        <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
          Where practitioners differ
        </chakra.summary>
        <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4" pt="2">
          {choices.questions.map((question) => {
            const value = form.choices[question.key] ?? question.answers[0]?.key ?? "";
            const taken = question.answers.find(({ key }) => key === value);
            return (
              <Box key={question.key}>
                <SelectField
                  label={question.title}
                  value={value}
                  options={question.answers.map(({ key, label }) => ({ value: key, label }))}
                  onPick={(option) => set({ choices: { ...form.choices, [question.key]: option } })}
                />
                <Text fontSize="note" color="soft" mt="1">
                  {taken?.reason}
                </Text>
              </Box>
            );
          })}
        </Grid>
        {problem("choices") && (
          <Text role="alert" color="accent" fontWeight="600" mt="2">
            {problem("choices")}
          </Text>
        )}
      </chakra.details>
      <chakra.details open={Object.keys(form.ownRanges).length > 0}>
        <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
          Ranges of your own
        </chakra.summary>
        <Text fontSize="note" color="soft" mb="3">
          What you fill in goes before the ranges chosen above; the rest stays as they have it.
        </Text>
        <Grid gap="3">
          {OWN_MEASURES.map((measure) => (
            <OwnRow key={measure} measure={measure} form={form} set={set} />
          ))}
        </Grid>
        {problem("own_ranges") && (
          <Text role="alert" color="accent" fontWeight="600" mt="2">
            {problem("own_ranges")}
          </Text>
        )}
      </chakra.details>
    </>
  );
}

const EMPTY: RangeText = { low: "", aim: "", high: "" };

function OwnRow({ measure, form, set }: Pick<RulesProps, "form" | "set"> & { measure: Measure }) {
  const row = form.ownRanges[measure] ?? EMPTY;
  const name = nameOf(measure);
  const title = name.charAt(0).toUpperCase() + name.slice(1);
  return (
    <Grid templateColumns={{ base: "1fr 1fr 1fr", md: "9rem repeat(3, 7rem)" }} gap="3" alignItems="end">
      <Text
        gridColumn={{ base: "1 / -1", md: "auto" }}
        fontWeight="600"
        minH={{ md: "44px" }}
        lineHeight={{ md: "44px" }}
      >
        {title}
      </Text>
      {(["low", "aim", "high"] as const).map((side) => (
        <TextField
          key={side}
          label={side.charAt(0).toUpperCase() + side.slice(1)}
          aria-label={`${title}, ${side}`}
          inputMode="decimal"
          value={row[side]}
          onText={(text) => set({ ownRanges: { ...form.ownRanges, [measure]: { ...row, [side]: text } } })}
        />
      ))}
    </Grid>
  );
}
