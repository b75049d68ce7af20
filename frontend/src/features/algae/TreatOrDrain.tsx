import { Box, Flex, Heading, Text } from "@chakra-ui/react";
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
      <Box overflowX="auto" mt="3" tabIndex={0} role="region" aria-label="Treating and draining compared">
        <Box as="table" w="100%" aria-label="The ways side by side">
          <thead>
            <tr>
              {["", "Money", "Days", "New water"].map((name) => (
                <Box as="th" key={name} textAlign="left" fontSize="note" color="soft" fontWeight="400" pr="4">
                  {name}
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {compared.ways.map((way) => (
              <Box as="tr" key={way.key} borderTop="1px solid" borderColor="hairline" verticalAlign="top">
                <Box as="td" py="2" pr="4" minW="14rem">
                  <Text fontWeight={way.key === compared.verdict ? "700" : "500"}>
                    {way.title}
                    {way.key === compared.verdict ? ": the rules point here" : ""}
                  </Text>
                  <Text fontSize="note" color="soft">
                    {way.text}
                  </Text>
                </Box>
                <Box as="td" py="2" pr="4">
                  {way.money === null && way.at_least > 0
                    ? `at least ${moneyText([way.at_least], compared.currency)}`
                    : moneyText(way.money, compared.currency)}
                  {way.gaps.length > 0 && (
                    <Text fontSize="note" color="soft">
                      without {way.gaps.join(", ")}
                    </Text>
                  )}
                </Box>
                <Box as="td" py="2" pr="4" whiteSpace="nowrap">
                  {daysText(way.days)}
                </Box>
                <Box as="td" py="2" whiteSpace="nowrap">
                  {volumeText(way.water_l, units)}
                </Box>
              </Box>
            ))}
          </tbody>
        </Box>
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
