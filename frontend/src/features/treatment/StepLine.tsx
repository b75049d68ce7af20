import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import hazardous from "../../api/hazardous.json";
import type { TreatmentStep } from "../../api/types";
import { SideButton } from "../../components/Button";
import { CautionLine } from "../../components/CautionLine";
import { Why } from "../../components/Why";
import { useReadsOnly } from "../../lib/me";
import { expectedText, nameOf, sideEffectText } from "../../lib/measures";
import { unbroken } from "../../lib/text";
import { clock, dayName } from "../../lib/times";

const HAZARDOUS = new Set<string>(hazardous);

export function isHazardous(hazard: string): boolean {
  return HAZARDOUS.has(hazard);
}

interface StepLineProps {
  line: TreatmentStep;
  zone: string;
  onUndo: (entryId: string) => void;
  /** It is the step at hand, which stands beside the list with its cautions in full. */
  toldBeside: boolean;
}

/** One line of the sheet on its time line; a wait is drawn to scale. */
export function StepLine({ line, zone, onUndo, toldBeside }: StepLineProps) {
  const { step, at, ticked } = line;
  const readsOnly = useReadsOnly();
  if (step.kind === "wait") return <WaitLine minutes={step.minutes ?? 0} title={step.title} why={step.why} />;
  return (
    <Grid as="li" templateColumns="5rem 1.5rem minmax(0,1fr)" columnGap="3" data-step={line.number}>
      <Box textAlign="right" fontWeight="650">
        {clock(at, zone)}
        <Text fontSize="note" color="soft" fontWeight="400">
          {dayName(at, zone)}
        </Text>
      </Box>
      <Mark done={ticked !== null} />
      <Box pb="4">
        <Flex justify="space-between" columnGap="4" rowGap="0" wrap="wrap" align="baseline">
          <Text fontWeight="650" fontSize="lead" lineHeight="1.3">
            {unbroken(step.title)}
          </Text>
          {step.rounded_text && (
            <Text fontWeight="700" fontSize="lead">
              {unbroken(step.rounded_text)}
            </Text>
          )}
        </Flex>
        <Details line={line} toldBeside={toldBeside} />
        {ticked && (
          <Flex align="center" gap="3" mt="1" wrap="wrap">
            <Text fontWeight="600">
              {ticked.outcome === "skipped" ? "Left out" : "Done"} at {clock(ticked.at, zone)}
              {ticked.amount_text ? `: ${ticked.amount_text}` : ""}
            </Text>
            {!readsOnly && (
              <SideButton data-noprint onClick={() => onUndo(ticked.entry_id)}>
                Undo
              </SideButton>
            )}
          </Flex>
        )}
      </Box>
    </Grid>
  );
}

function Details({ line, toldBeside }: { line: TreatmentStep; toldBeside: boolean }) {
  const { step, ticked } = line;
  const leaves = expectedText(step.expected, step.measures);
  const sides = sideEffectText(step.side_effects);
  return (
    <Box fontSize="note" color="soft">
      <Text>{step.why}</Text>
      {step.where && <Text>{step.where}</Text>}
      {leaves && (
        <Text>
          {step.kind === "test" ? "Expect " : "Leaves "}
          {leaves}
          {sides && `; also ${sides}`}.
        </Text>
      )}
      {step.range_text && (
        <Text>
          By the readings' doubt {step.range_text}
          {step.range_from && `, most of it from ${nameOf(step.range_from)}`}.
        </Text>
      )}
      <Why about={`${step.title}: ${step.rounded_text ?? ""}`} working={step.working} />
      {ticked === null && (step.kind === "add" || isHazardous(step.hazard)) && (
        <CautionLine
          step={step}
          hazardous={isHazardous(step.hazard)}
          full={line.first_telling && !toldBeside}
        />
      )}
    </Box>
  );
}

function Mark({ done }: { done: boolean }) {
  return (
    <Box position="relative" display="flex" justifyContent="center">
      <Box position="absolute" top="0" bottom="0" w="2px" bg="hairline" />
      <Box
        position="relative"
        mt="0.5"
        w="20px"
        h="20px"
        borderRadius="full"
        border="3px solid"
        borderColor="ink"
        bg={done ? "ink" : "card"}
      />
    </Box>
  );
}

// To scale up to six hours; longer waits are as long as that and say so in words.
const PX_PER_MINUTE = 0.35;
const LONGEST_DRAWN_MIN = 360;

function WaitLine({ minutes, title, why }: { minutes: number; title: string; why: string }) {
  const height = Math.max(34, Math.min(minutes, LONGEST_DRAWN_MIN) * PX_PER_MINUTE);
  return (
    <Grid as="li" templateColumns="5rem 1.5rem minmax(0,1fr)" columnGap="3">
      <span />
      <Flex justify="center" position="relative">
        <Box position="absolute" top="0" bottom="0" w="2px" bg="hairline" />
        <Box
          position="relative"
          w="12px"
          h={{ base: `${height}px`, _print: "30px" }}
          mb="4"
          borderRadius="6px"
          bg="band"
          border="1.5px solid"
          borderColor="rope"
        />
      </Flex>
      <Box pb="4" alignSelf="start">
        <Text color="rope" fontWeight="600">
          {title}
        </Text>
        <Text fontSize="note" color="soft">
          {why}
        </Text>
      </Box>
    </Grid>
  );
}
