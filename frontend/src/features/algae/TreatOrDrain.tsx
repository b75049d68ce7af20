import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import type { Rescue } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PlainLink } from "../../components/TextLink";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import { useStore } from "../../lib/store";
import { unitsStore, volumeText } from "../../lib/units";
import { daysText, moneyText } from "./spans";

const VERDICTS: Record<string, string> = {
  treat: "Treat it",
  part: "Replace some water first, then treat",
  drain: "Better drained",
};

interface Props {
  seen: Rescue;
  poolId: string;
  busy: boolean;
  onLimits: (stabilizer: string, calcium: string) => void;
}

/** The ways in money, days and water, and which of them the rules point to. */
export function TreatOrDrain({ seen, poolId, busy, onLimits }: Props) {
  const units = useStore(unitsStore);
  const { compared } = seen;
  return (
    <Card as="section" aria-label="Treat or drain" mt="5">
      <Heading as="h2" fontSize="lead">
        Treat or drain: {VERDICTS[compared.verdict]?.toLowerCase()}
      </Heading>
      {compared.reasons.map((reason) => (
        <Text key={reason}>{reason}</Text>
      ))}
      <Box as="ul" listStyleType="none" p="0" mt="3" aria-label="The ways side by side">
        {compared.ways.map((way) => (
          <Grid
            as="li"
            key={way.key}
            templateColumns={{ base: "repeat(3, auto)", md: "minmax(0,1fr) 8rem 7rem 7rem" }}
            justifyContent={{ base: "space-between", md: "stretch" }}
            columnGap="4"
            rowGap="1"
            py="2"
            borderTop="1px solid"
            borderColor="hairline"
          >
            <Box gridColumn={{ base: "1 / -1", md: "auto" }}>
              <Text fontWeight={way.key === compared.verdict ? "700" : "500"}>
                {way.title}
                {way.key === compared.verdict ? ": the rules point here" : ""}
              </Text>
              <Text fontSize="note" color="soft">
                {way.text}
              </Text>
            </Box>
            <Figure name="Money">
              {way.money === null && way.at_least > 0
                ? `at least ${moneyText([way.at_least], compared.currency)}`
                : moneyText(way.money, compared.currency)}
              {way.gaps.length > 0 && (
                <Text fontSize="note" color="soft">
                  without {way.gaps.join(", ")}
                </Text>
              )}
            </Figure>
            <Figure name="Days">{daysText(way.days)}</Figure>
            <Figure name="New water">{volumeText(way.water_l, units)}</Figure>
          </Grid>
        ))}
      </Box>
      <Flex gap="5" mt="3" wrap="wrap" align="end">
        <PlainLink to={`/pools/${poolId}/plan?plan=drain`}>Replace water in parts</PlainLink>
        <PlainLink to={`/pools/${poolId}/plan?plan=drain_day`}>The draining day, step by step</PlainLink>
      </Flex>
      {seen.open && (
        <Limits
          key={`${compared.drain_over_stabiliser}/${compared.drain_over_calcium}`}
          stabilizer={compared.drain_over_stabiliser}
          calcium={compared.drain_over_calcium}
          busy={busy}
          onLimits={onLimits}
        />
      )}
    </Card>
  );
}

function Figure({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <Box>
      <Text fontSize="note" color="soft">
        {name}
      </Text>
      <Box>{children}</Box>
    </Box>
  );
}

interface LimitsProps {
  stabilizer: number;
  calcium: number;
  busy: boolean;
  onLimits: (stabilizer: string, calcium: string) => void;
}

interface LimitsTyped {
  stabilizer: string;
  calcium: string;
}
const { Amount } = fieldsOf<LimitsTyped>();

/** Over what a pool whose first step is hidden is better drained: the trade's figures, to be changed. */
function Limits({ stabilizer, calcium, busy, onLimits }: LimitsProps) {
  const start = { stabilizer: String(stabilizer), calcium: String(calcium) };
  const kit = useKit<LimitsTyped>({
    start,
    send: async (typed) => onLimits(typed.stabilizer, typed.calcium),
  });
  const typed = kit.form.watch();
  const good = typed.stabilizer.trim() !== "" && typed.calcium.trim() !== "";
  const changed = good && (typed.stabilizer !== start.stabilizer || typed.calcium !== start.calcium);
  return (
    <KitForm kit={kit} data-noprint>
      <Text fontSize="note" color="soft" mt="4" mb="1">
        Where the first step is hidden, drain when stabilizer or calcium is over
      </Text>
      <Flex gap="4" wrap="wrap" align="end">
        <Box w="8rem">
          <Amount name="stabilizer" label="Stabilizer, ppm" />
        </Box>
        <Box w="8rem">
          <Amount name="calcium" label="Calcium, ppm" />
        </Box>
        <SideButton type="submit" disabled={!changed || busy}>
          Set these limits
        </SideButton>
        {!good && <Text color="accent">Type numbers over 0, like 100.</Text>}
      </Flex>
    </KitForm>
  );
}
