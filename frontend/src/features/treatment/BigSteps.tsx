import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { Treatment, TreatmentStep } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Caution } from "../../components/Card";
import { CautionLine } from "../../components/CautionLine";
import { unbroken } from "../../lib/text";
import { clock, hoursText } from "../../lib/times";
import { useScreenOn } from "../../lib/useScreenOn";
import { useSwipe } from "../../lib/useSwipe";
import { isHazardous } from "./StepLine";
import { useDue } from "./useDue";

const Layer = chakra("dialog", {
  base: {
    position: "fixed",
    inset: "0",
    w: "100%",
    h: "100dvh",
    maxW: "none",
    maxH: "none",
    m: "0",
    p: "4",
    border: "0",
    bg: "paper",
    color: "ink",
    overflowY: "auto",
    touchAction: "pan-y",
    "&[open]": { display: "flex" },
    flexDirection: "column",
  },
});

interface BigStepsProps {
  sheet: Treatment;
  current: TreatmentStep;
  zone: string;
  busy: boolean;
  onTick: (outcome: "done") => Promise<boolean>;
  onClose: () => void;
}

/**
 * The plan for wet hands: one step fills the screen, which stays on. A swipe or a big button looks at the steps
 * around it; only the button of the step at hand writes anything down.
 */
export function BigSteps({ sheet, current, zone, busy, onTick, onClose }: BigStepsProps) {
  const layer = useRef<HTMLDialogElement>(null);
  const steps = sheet.steps.filter(({ step }) => step.kind !== "wait");
  const at = steps.findIndex(({ number }) => number === current.number);
  const [shown, setShown] = useState<number | null>(null);
  const index = shown ?? at;
  const line = steps[index] ?? current;
  const stays = useScreenOn();
  const look = (to: number) => setShown(Math.min(Math.max(to, 0), steps.length - 1));
  const swipe = useSwipe(
    () => look(index + 1),
    () => look(index - 1),
  );
  useEffect(() => {
    const dialog = layer.current;
    if (dialog === null || dialog.open) return;
    if (typeof dialog.showModal === "function") dialog.showModal();
    else dialog.setAttribute("open", "");
  }, []);
  return (
    <Layer
      ref={layer}
      aria-label="Big steps"
      onCancel={(event) => {
        event.preventDefault();
        onClose();
      }}
      {...swipe}
      data-noprint
    >
      <Flex justify="space-between" align="center" gap="3" mb="2">
        <Text fontWeight="650">
          Step {index + 1} of {steps.length}
          <Text as="span" ml="3" color="soft" fontSize="note" fontWeight="400" role="status">
            {stays ? "The screen stays on" : "This device may lock itself"}
          </Text>
        </Text>
        <SideButton onClick={onClose}>Close</SideButton>
      </Flex>
      <Flex gap="1" mb="4" aria-hidden="true">
        {steps.map(({ number, ticked }) => (
          <Box
            key={number}
            flex="1"
            h="8px"
            borderRadius="4px"
            bg={number === line.number ? "accent" : ticked ? "ink" : "hairline"}
          />
        ))}
      </Flex>
      <BigStep line={line} zone={zone} />
      <Box mt="auto" pt="4">
        {index === at ? (
          <MainButton
            w="100%"
            minH="112px"
            fontSize="title"
            disabled={busy}
            onClick={async () => {
              await onTick("done");
              setShown(null);
            }}
          >
            {line.step.kind === "add" ? "Poured all of it" : "Done"}
          </MainButton>
        ) : (
          <SideButton w="100%" minH="112px" fontSize="title" onClick={() => setShown(null)}>
            To the step at hand
          </SideButton>
        )}
        <Flex gap="3" mt="3">
          <SideButton flex="1" minH="72px" disabled={index === 0} onClick={() => look(index - 1)}>
            Step before
          </SideButton>
          <SideButton
            flex="1"
            minH="72px"
            disabled={index === steps.length - 1}
            onClick={() => look(index + 1)}
          >
            Step after
          </SideButton>
        </Flex>
        <Text mt="2" color="soft" fontSize="note" textAlign="center">
          Another amount, or not today: close, and say so at the step.
        </Text>
      </Box>
    </Layer>
  );
}

/** One step as large as the screen allows: when, what, how much, where, and its cautions. */
function BigStep({ line, zone }: { line: TreatmentStep; zone: string }) {
  const { step, ticked } = line;
  return (
    <Box aria-live="polite">
      <Text fontSize="lead" fontWeight="700" color={ticked ? "soft" : "accent"}>
        {ticked ? `Done at ${clock(ticked.at, zone)}` : <When line={line} zone={zone} />}
      </Text>
      <Text as="h2" fontSize="2rem" fontWeight="750" lineHeight="1.15">
        {unbroken(step.title)}
      </Text>
      {step.rounded_text && (
        <Text fontSize="clamp(2.5rem, 14vw, 5rem)" fontWeight="800" lineHeight="1.1" my="2">
          {unbroken(step.rounded_text)}
        </Text>
      )}
      {step.where && (
        <Text fontSize="lead" fontWeight="600" mb="3">
          {step.where}
        </Text>
      )}
      {step.cautions.length > 0 && (
        <Caution py="2" mt="3">
          <CautionLine step={step} hazardous={isHazardous(step.hazard)} full={line.first_telling} />
        </Caution>
      )}
    </Box>
  );
}

/** The time by the clock on the wall: right again as soon as a locked phone is opened. */
function When({ line, zone }: { line: TreatmentStep; zone: string }) {
  const { due, left_min } = useDue(line, false); // the page below rings
  if (due) return "Due now";
  return `In ${hoursText(left_min)}, at ${clock(line.at, zone)}`;
}
