import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { treatmentQuery } from "../../api/queries";
import type { Measure, PoolHeaderData, Treatment } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useReadsOnly } from "../../lib/me";
import { nameOf, valueText } from "../../lib/measures";
import { clock } from "../../lib/times";
import type { Units } from "../../lib/units";
import type { useWhatIf } from "./useWhatIf";

/** The sheet for the aims just moved; nothing is kept until it is started. */
export function PlanForAims({
  poolId,
  zone,
  whatIf,
}: {
  poolId: string;
  zone: string;
  whatIf: ReturnType<typeof useWhatIf>;
}) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const { answer, trouble, clear, adopt } = whatIf;
  if (answer === null) return null;
  const aims = (Object.entries(answer.aims) as [Measure, number][])
    .map(([measure, value]) => `${nameOf(measure)} ${valueText(measure, value)}`)
    .join(", ");
  async function start() {
    if (!(await adopt())) return;
    clear();
    await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    void navigate(`/pools/${poolId}/plan`);
  }
  return (
    <Card as="section" aria-label="What if" borderColor="accent">
      <Text as="h2" fontSize="lead" fontWeight="700">
        What if you aim at {aims}
      </Text>
      <Text fontSize="note" color="soft" mb="3">
        Nothing is kept until you start it.
      </Text>
      <ShortSteps sheet={answer.sheet} zone={zone} />
      {trouble !== null && (
        <Text role="alert" color="accent" fontWeight="600" mt="2">
          {trouble.message}
        </Text>
      )}
      <Flex gap="3" mt="4" wrap="wrap">
        {answer.sheet.steps.length > 0 && (
          <MainButton onClick={() => void start()}>Start this plan</MainButton>
        )}
        <SideButton onClick={clear}>Back to the usual aims</SideButton>
      </Flex>
    </Card>
  );
}

/** Where a rescue is needed or goes on, its sheet is the one that counts. */
export function RescueBeside({ poolId, head }: { poolId: string; head: PoolHeaderData }) {
  return (
    <Card as="section" aria-label="Rescue">
      <Text as="h2" fontSize="lead" fontWeight="700" mb="2">
        {head.treating ? "The rescue goes on" : head.next.text}
      </Text>
      <Text mb="2">{head.next.why}</Text>
      <PlainLink to={`/pools/${poolId}/rescue`}>Open the rescue board</PlainLink>
    </Card>
  );
}

export function PlanBeside({ poolId, zone, units }: { poolId: string; zone: string; units: Units }) {
  const sheet = useQuery(treatmentQuery(poolId, units));
  const readsOnly = useReadsOnly();
  if (sheet.isPending) return <Loading what="the plan" />;
  if (sheet.isError) return <Failed error={sheet.error} again={() => void sheet.refetch()} />;
  return (
    <Card as="section" aria-label="Plan">
      <Flex justify="space-between" align="baseline" mb="3">
        <Text as="h2" fontSize="lead" fontWeight="700">
          Plan
        </Text>
        <PlainLink to={`/pools/${poolId}/plan`} fontSize="note">
          {readsOnly ? "open" : sheet.data.id === null ? "open and start" : "go on"}
        </PlainLink>
      </Flex>
      <ShortSteps sheet={sheet.data} zone={zone} />
    </Card>
  );
}

function ShortSteps({ sheet, zone }: { sheet: Treatment; zone: string }) {
  if (sheet.steps.length === 0) return <Text color="soft">Nothing to pour now.</Text>;
  return (
    <Box as="ol" listStyleType="none" p="0" m="0">
      {sheet.steps
        .filter(({ step }) => step.kind !== "wait")
        .map(({ number, step, at, ticked }) => (
          <Flex
            as="li"
            key={number}
            data-step={number}
            gap="3"
            py="1.5"
            align="baseline"
            color={ticked ? "soft" : "ink"}
          >
            <Text
              w="4.25rem"
              flexShrink="0"
              textAlign="right"
              color="soft"
              fontSize="note"
              whiteSpace="nowrap"
            >
              {step.day > 1 ? `day ${step.day}` : clock(at, zone)}
            </Text>
            <Flex flex="1" wrap="wrap" justify="space-between" columnGap="3">
              <Text
                fontWeight={step.kind === "add" ? "600" : "400"}
                textDecoration={ticked ? "line-through" : "none"}
              >
                {step.title}
              </Text>
              {step.rounded_text && <Text fontWeight="700">{step.rounded_text}</Text>}
            </Flex>
          </Flex>
        ))}
      {sheet.unmet.map((left) => (
        <Text as="li" key={left.measure} fontSize="note" color="soft" mt="2">
          {left.reason}
        </Text>
      ))}
    </Box>
  );
}
