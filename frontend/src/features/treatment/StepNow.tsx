import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useEffect, useRef, useState } from "react";
import type { Treatment, TreatmentStep } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card, Caution } from "../../components/Card";
import { CautionLine } from "../../components/CautionLine";
import { PlanDrawing } from "../../components/PlanDrawing";
import { Why } from "../../components/Why";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import { useReadsOnly } from "../../lib/me";
import { expectedText, nameOf } from "../../lib/measures";
import { unbroken } from "../../lib/text";
import { clock, dayName } from "../../lib/times";
import type { Units } from "../../lib/units";
import { isHazardous } from "./StepLine";

interface StepNowProps {
  sheet: Treatment;
  current: TreatmentStep;
  zone: string;
  units: Units;
  busy: boolean;
  /** The step before it was just ticked, or the sheet just started: the keyboard and the reader go on here. */
  takesFocus: boolean;
  onTick: (outcome: "done" | "skipped", amount?: string) => Promise<boolean>;
  /** For wet hands: one step on the whole screen. */
  onBig: () => void;
}

/** The one step that is on now, large enough for a wet thumb and bright sun. */
export function StepNow({ sheet, current, zone, units, busy, takesFocus, onTick, onBig }: StepNowProps) {
  const { step } = current;
  const readsOnly = useReadsOnly();
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (takesFocus) title.current?.focus(); // on a phone it may lie above what is seen
  }, [takesFocus]);
  const tickable = sheet.steps.filter(({ step: other }) => other.kind !== "wait");
  const position = tickable.findIndex(({ number }) => number === current.number);
  return (
    <Box as="section" aria-label="Step now" data-noprint>
      <Flex gap="1" mb="3" aria-hidden="true">
        {tickable.map(({ number, ticked }, index) => (
          <Box
            key={number}
            flex="1"
            h="6px"
            borderRadius="3px"
            bg={index === position ? "accent" : ticked ? "ink" : "hairline"}
          />
        ))}
      </Flex>
      <Flex justify="space-between" align="baseline">
        <Text color="accent" fontWeight="700">
          {clock(current.at, zone)}
          {step.day > 1 ? `, ${dayName(current.at, zone)}` : ""}
        </Text>
        <Text color="soft" fontSize="note">
          Step {position + 1} of {tickable.length}
        </Text>
      </Flex>
      <chakra.h2
        ref={title}
        tabIndex={-1}
        fontSize="title"
        fontWeight="700"
        lineHeight="1.2"
        _focus={{ outline: "none" }}
      >
        {unbroken(step.title)}
      </chakra.h2>
      {step.rounded_text && (
        <Text
          fontSize={step.rounded_text.length > 14 ? "1.75rem" : "amount"}
          fontWeight="750"
          lineHeight="1.15"
        >
          {unbroken(step.rounded_text)}
        </Text>
      )}
      <Text color="soft" fontSize="note" mb="3">
        {step.why}{" "}
        {expectedText(step.expected, step.measures) && `Then ${expectedText(step.expected, step.measures)}.`}
      </Text>
      {step.range_text && (
        <Text fontSize="note" mb="2">
          By the readings' doubt {step.range_text}
          {step.range_from && `, most of it from ${nameOf(step.range_from)}`}. Start with less when unsure:
          one can add.
        </Text>
      )}
      <Box mb="3">
        <Why about={`${step.title}: ${step.rounded_text ?? ""}`} working={step.working} />
      </Box>
      {step.kind === "add" && sheet.drawing && step.pour_path && (
        <Card mb="3" p="2">
          <PlanDrawing plan={sheet.drawing} units={units} show="pour" />
        </Card>
      )}
      {step.kind === "test" && sheet.drawing && (
        <Card mb="3" p="2">
          <PlanDrawing plan={sheet.drawing} units={units} show="sample" />
        </Card>
      )}
      {step.where && (
        <Text fontWeight="600" mb="3">
          {step.where}
        </Text>
      )}
      {step.cautions.length > 0 && (
        <Caution mb="4" py="2">
          <CautionLine step={step} hazardous={isHazardous(step.hazard)} full={current.first_telling} />
        </Caution>
      )}
      {!readsOnly && (
        <>
          <Actions current={current} busy={busy} onTick={onTick} />
          <SideButton mt="3" w="100%" minH="52px" onClick={onBig}>
            Big steps, for wet hands
          </SideButton>
        </>
      )}
    </Box>
  );
}

const { Field } = fieldsOf<{ amount: string }>();

function Actions({ current, busy, onTick }: Pick<StepNowProps, "current" | "busy" | "onTick">) {
  const [asks, setAsks] = useState(false);
  const kit = useKit<{ amount: string }>({
    start: { amount: "" },
    send: ({ amount }) => onTick("done", amount),
  });
  const adding = current.step.kind === "add";
  if (asks) {
    return (
      <KitForm kit={kit}>
        <Field
          name="amount"
          label="How much really went in"
          placeholder={current.step.rounded_text ?? ""}
          autoFocus
        />
        <MainButton type="submit" mt="3" w="100%" disabled={busy || kit.form.watch("amount").trim() === ""}>
          Note this amount
        </MainButton>
        <SideButton mt="3" w="100%" onClick={() => setAsks(false)}>
          Back
        </SideButton>
      </KitForm>
    );
  }
  return (
    <>
      <MainButton w="100%" minH="64px" disabled={busy} onClick={() => void onTick("done")}>
        {adding ? "Poured all of it" : "Done"}
      </MainButton>
      <Flex gap="3" mt="3">
        {adding && (
          <SideButton flex="1" minH="52px" disabled={busy} onClick={() => setAsks(true)}>
            Other amount
          </SideButton>
        )}
        <SideButton flex="1" minH="52px" disabled={busy} onClick={() => void onTick("skipped")}>
          Not today
        </SideButton>
      </Flex>
    </>
  );
}
