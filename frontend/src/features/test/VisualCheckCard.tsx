import { Box, Flex, Grid, Heading } from "@chakra-ui/react";
import { memo, useState } from "react";
import { useFormContext, useWatch } from "react-hook-form";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { type Option, PickMany } from "../../components/Pick";
import { PlainLink } from "../../components/TextLink";
import { fieldsOf } from "../../forms/kit";
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
const DANGER: readonly Option<string>[] = [
  { value: "drain_cover", label: "Drain cover loose, cracked or gone" },
  { value: "electric", label: "Tingling, or a broken light" },
  { value: "gas", label: "Gas smell and cough" },
  { value: "glass", label: "Broken glass" },
  { value: "thunder", label: "Thunder" },
  { value: "cover_on", label: "Cover not wholly off" },
  { value: "water_hot", label: "Water over 104 F" },
  { value: "unlit", label: "Floor not lit after dark" },
  { value: "barrier", label: "Gate or fence failing" },
];

const { Choice } = fieldsOf<TestDraft>();

/** Look before you measure: clear and level right is one tap; anything odd opens the rest. */
export const VisualCheckCard = memo(function VisualCheckCard({ poolId }: { poolId: string }) {
  const { setValue } = useFormContext<TestDraft>();
  const [clarity, level, seen] = useWatch<TestDraft, ["clarity", "level", "odd"]>({
    name: ["clarity", "level", "odd"],
  });
  const well = clarity === "clear" && level === "normal" && seen.length === 0;
  const [open, setOpen] = useState(() => (clarity !== null || level !== null || seen.length > 0) && !well);
  const toggle = (what: string) =>
    setValue("odd", seen.includes(what) ? seen.filter((odd) => odd !== what) : [...seen, what]);
  function allWell() {
    setValue("clarity", well ? null : "clear");
    setValue("level", well ? null : "normal");
    setValue("odd", []);
    setOpen(false);
  }
  return (
    <Box as="section" aria-label="Look">
      <Flex align="center" gap="2" wrap="wrap">
        <Heading as="h2" fontSize="body" fontWeight="700" mr="1">
          Look
        </Heading>
        <SideButton type="button" px="3" aria-pressed={well} onClick={allWell}>
          Clear, level right
        </SideButton>
        <SideButton type="button" px="3" aria-expanded={open} onClick={() => setOpen(!open)}>
          Something odd
        </SideButton>
      </Flex>
      {open && (
        <Card mt="3">
          <Grid gap="3">
            <Choice inline name="clarity" label="The water is" options={CLARITY} />
            <Choice inline name="level" label="Level in the skimmer" options={LEVEL} />
            <PickMany inline label="Anything odd" options={ODD} values={seen} onToggle={toggle} />
            <details open={DANGER.some(({ value }) => seen.includes(value)) || undefined}>
              <Box as="summary" cursor="pointer" lineHeight="44px" display="list-item" fontWeight="600">
                Danger here
              </Box>
              <PickMany
                label="Nobody swims until it is gone"
                options={DANGER}
                values={seen}
                onToggle={toggle}
              />
            </details>
            <PlainLink
              to={`/pools/${poolId}/what-is-it`}
              display="inline-flex"
              minH="44px"
              alignItems="center"
            >
              What is it in the water?
            </PlainLink>
          </Grid>
        </Card>
      )}
    </Box>
  );
});
