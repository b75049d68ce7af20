import { Box, Flex, Text } from "@chakra-ui/react";
import type { ReactNode } from "react";
import hazardous from "../../api/hazardous.json";
import type { ProcedureStep } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { PlainLink } from "../../components/TextLink";
import { AskField } from "./AskField";
import { useTimer } from "./useTimer";

const HAZARDOUS = new Set<string>(hazardous);

interface StepCardProps {
  step: ProcedureStep;
  /** A time that was taken for a value the step asks for, s. */
  onTime: (name: string, seconds: number) => void;
  extra: ReactNode;
  onBack: (() => void) | null;
  onNext: () => void;
  onToTheEnd: () => void;
}

/** The one step that is on: its caution first, its timer, what to read here. */
export function StepCard({ step, onTime, extra, onBack, onNext, onToTheEnd }: StepCardProps) {
  return (
    <Card aria-live="polite">
      {step.cautions.length > 0 && (
        <Caution mb="4">
          {step.cautions.map((caution, index) => (
            <Text
              key={caution}
              fontWeight={index === 0 ? "700" : "400"}
              color={index === 0 ? "accent" : "ink"}
            >
              {caution}
            </Text>
          ))}
          {HAZARDOUS.has(step.hazard) && (
            <PlainLink to="/emergency" display="inline-flex" alignItems="center" minH="44px">
              If it goes wrong
            </PlainLink>
          )}
        </Caution>
      )}
      <Text fontSize="title" fontWeight="650" lineHeight="1.3" mb="4">
        {step.text}
      </Text>
      {extra}
      {step.timer_from_s !== null && step.timer_to_s !== null && (
        <Timer
          from={step.timer_from_s}
          to={step.timer_to_s}
          onStop={(seconds) => {
            const ask = step.asks.find(({ name }) => name === "wash_s" || name === "rinse_s");
            if (ask) onTime(ask.name, seconds);
          }}
        />
      )}
      {step.asks.map((ask) => (
        <Box key={ask.name} mb="4">
          <AskField ask={ask} />
        </Box>
      ))}
      <MainButton w="100%" minH="64px" onClick={onNext}>
        Done, next
      </MainButton>
      <Flex gap="3" mt="3">
        {onBack !== null && (
          <SideButton flex="1" onClick={onBack}>
            Back
          </SideButton>
        )}
        <SideButton flex="1" onClick={onToTheEnd}>
          To the end
        </SideButton>
      </Flex>
    </Card>
  );
}

function clockText(seconds: number): string {
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}

function spanText(from: number, to: number): string {
  const words = (s: number) => (s % 60 === 0 ? `${s / 60} min` : `${s} s`);
  return from === to ? words(from) : `${words(from)} to ${words(to)}`;
}

/** Counts up against the span that the trade knows; stopping it notes the seconds. */
function Timer({ from, to, onStop }: { from: number; to: number; onStop: (seconds: number) => void }) {
  const { seconds, start, stop } = useTimer();
  const words =
    seconds === null
      ? spanText(from, to)
      : seconds < from
        ? "go on"
        : seconds <= to
          ? "long enough"
          : "longer than usual";
  return (
    <Flex align="center" gap="4" mb="4">
      <Text fontSize="amount" fontWeight="750" lineHeight="1" minW="6.5rem">
        {clockText(seconds ?? 0)}
      </Text>
      <Text flex="1" role="status">
        {words}
      </Text>
      {seconds === null ? (
        <SideButton minH="52px" onClick={start}>
          Start
        </SideButton>
      ) : (
        <SideButton
          minH="52px"
          onClick={() => {
            onStop(seconds);
            stop();
          }}
        >
          Stop
        </SideButton>
      )}
    </Flex>
  );
}
