import { Grid, Heading } from "@chakra-ui/react";
import { Card } from "../../components/Card";
import { type Option, PickMany, PickOne } from "../../components/Pick";
import { PlainLink } from "../../components/TextLink";
import type { TestDraft } from "./useTestForm";

const CLARITY: readonly Option<NonNullable<TestDraft["clarity"]>>[] = [
  { value: "clear", label: "Clear" },
  { value: "hazy", label: "Hazy" },
  { value: "cloudy", label: "Cloudy" },
  { value: "drain_hidden", label: "Drain hidden" },
  { value: "green", label: "Green" },
];
const LEVEL: readonly Option<NonNullable<TestDraft["level"]>>[] = [
  { value: "low", label: "Low" },
  { value: "normal", label: "Normal" },
  { value: "high", label: "High" },
];
const ODD = ["leaves", "algae spots", "dead animal", "foam", "sharp smell", "weak returns", "leak"] as const;

/** Look before you measure: one tap each. */
export function VisualCheckCard({
  draft,
  change,
  poolId,
}: {
  draft: TestDraft;
  change: (draft: TestDraft) => void;
  poolId: string;
}) {
  const toggle = (what: string) =>
    change({
      ...draft,
      odd: draft.odd.includes(what) ? draft.odd.filter((odd) => odd !== what) : [...draft.odd, what],
    });
  return (
    <Card as="section">
      <Heading as="h2" fontSize="lead" mb="3">
        Look first
      </Heading>
      <Grid gap="3">
        <PickOne
          inline
          label="The water is"
          options={CLARITY}
          value={draft.clarity}
          onPick={(clarity) => change({ ...draft, clarity })}
        />
        <PickOne
          inline
          label="Level in the skimmer"
          options={LEVEL}
          value={draft.level}
          onPick={(level) => change({ ...draft, level })}
        />
        <PickMany inline label="Anything odd" options={ODD} values={draft.odd} onToggle={toggle} />
        <PlainLink to={`/pools/${poolId}/what-is-it`} display="inline-flex" minH="44px" alignItems="center">
          What is it in the water?
        </PlainLink>
      </Grid>
    </Card>
  );
}
