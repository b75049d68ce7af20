import { Box, chakra, Grid, Text } from "@chakra-ui/react";
import { useFormContext, useWatch } from "react-hook-form";
import type { Choices, Measure, Question } from "../../api/types";
import { SelectField } from "../../components/SelectField";
import { fieldsOf, useProblem } from "../../forms/kit";
import { nameOf } from "../../lib/measures";
import type { PoolForm } from "./form";
import { OWN_MEASURES, settingsOf } from "./form";

const { Amount, Select } = fieldsOf<PoolForm>();

/** By which ranges the pool is judged, and the answers where practitioners differ. */
export function Rules({ choices }: { choices: Choices }) {
  const { getValues } = useFormContext<PoolForm>();
  const opened = getValues();
  return (
    <>
      <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4">
        <Select
          name="school"
          label="Ranges"
          options={choices.schools.map(({ key, name }) => ({ value: key, label: name }))}
        />
        <Amount
          name="swimLimit"
          server="swim_limit_mg_l"
          label="Swim limit of free chlorine, ppm"
          help="Empty means the ranges' own. The product's label goes before it."
        />
      </Grid>
      <chakra.details open={settingsOf(opened).choices.length > 0}>
        <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
          Where practitioners differ
        </chakra.summary>
        <Grid templateColumns={{ base: "1fr", md: "1fr 1fr" }} gap="4" pt="2">
          {choices.questions.map((question) => (
            <Answer key={question.key} question={question} />
          ))}
        </Grid>
        <Refused field="choices" />
      </chakra.details>
      <chakra.details open={settingsOf(opened).own_ranges.length > 0}>
        <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
          Ranges of your own
        </chakra.summary>
        <Text fontSize="note" color="soft" mb="3">
          What you fill in goes before the ranges chosen above; the rest stays as they have it.
        </Text>
        <Grid gap="3">
          {OWN_MEASURES.map((measure) => (
            <OwnRow key={measure} measure={measure} />
          ))}
        </Grid>
        <Refused field="own_ranges" />
      </chakra.details>
    </>
  );
}

function Refused({ field }: { field: string }) {
  const problem = useProblem(field);
  if (problem === null) return null;
  return (
    <Text role="alert" color="accent" fontWeight="600" mt="2">
      {problem}
    </Text>
  );
}

/** One question; untouched, the usual answer holds and nothing is kept of it. */
function Answer({ question }: { question: Question }) {
  const name = `choices.${question.key}` as const;
  const { setValue } = useFormContext<PoolForm>();
  const picked = useWatch<PoolForm, typeof name>({ name });
  const value = picked ?? question.answers[0]?.key ?? "";
  const taken = question.answers.find(({ key }) => key === value);
  return (
    <Box>
      <SelectField
        label={question.title}
        value={value}
        options={question.answers.map(({ key, label }) => ({ value: key, label }))}
        onPick={(option) => setValue(name, option)}
      />
      <Text fontSize="note" color="soft" mt="1">
        {taken?.reason}
      </Text>
    </Box>
  );
}

function OwnRow({ measure }: { measure: Measure }) {
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
        <Amount
          key={side}
          name={`ownRanges.${measure}.${side}`}
          server={[]}
          label={side.charAt(0).toUpperCase() + side.slice(1)}
          aria-label={`${title}, ${side}`}
        />
      ))}
    </Grid>
  );
}
