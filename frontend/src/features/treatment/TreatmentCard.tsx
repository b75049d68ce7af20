import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useEffect } from "react";
import type { PlanRequest, Treatment } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { MainAction } from "../../components/MainAction";
import { PaperLink } from "../../components/PaperLink";
import { PlainLink } from "../../components/TextLink";
import { useReadsOnly } from "../../lib/me";
import { clock } from "../../lib/times";
import type { Units } from "../../lib/units";
import { useWide } from "../../lib/useWide";
import { calendarFile } from "./plans";
import { StepLine } from "./StepLine";

interface SheetCardProps {
  sheet: Treatment;
  asked: PlanRequest;
  units: Units;
  zone: string;
  poolId: string;
  busy: boolean;
  onStart: () => void;
  onUndo: (entryId: string) => void;
  onPutAway?: () => void;
  /** The number of the step that stands beside the list. */
  atHand?: number | undefined;
}

/** The whole sheet, offered or started, with what it leaves and why. */
export function TreatmentCard(props: SheetCardProps) {
  const { sheet, asked, units, zone, poolId, busy, onStart, onUndo, onPutAway, atHand } = props;
  usePrintZoom(sheet);
  const wide = useWide();
  const readsOnly = useReadsOnly();
  if (sheet.steps.length === 0) return <NothingToAdd sheet={sheet} poolId={poolId} />;
  const papers = (
    <Flex columnGap="3" align="center" wrap="wrap" mt={wide ? "0" : "4"} data-noprint>
      {sheet.id !== null && (
        <PaperLink poolId={poolId} kind="plan">
          This plan as PDF
        </PaperLink>
      )}
      <SideButton onClick={() => window.print()}>Print</SideButton>
      <SideButton asChild>
        <a href={calendarFile(poolId, asked, units)} download="plan.ics">
          Calendar file
        </a>
      </SideButton>
    </Flex>
  );
  return (
    <Card as="section" maxW={{ base: "52rem", _print: "none" }} className="sheet">
      <Flex justify="space-between" align="baseline" wrap="wrap" gap="3" mb="4">
        <Heading as="h2" fontSize="lead">
          Plan
        </Heading>
        <Text color="soft" fontSize="note">
          {sheet.started_at === null ? "if you start now" : `started ${clock(sheet.started_at, zone)}`} ·{" "}
          {sheet.school_name} ranges
        </Text>
        {wide && papers}
      </Flex>
      <Notes sheet={sheet} />
      <Box as="ol" listStyleType="none" p="0" m="0">
        {sheet.steps.map((step) => (
          <StepLine
            key={step.number}
            line={step}
            zone={zone}
            onUndo={onUndo}
            toldBeside={step.number === atHand}
          />
        ))}
      </Box>
      <Left sheet={sheet} />
      {sheet.standard_shelf && !readsOnly && (
        <Text fontSize="note" color="soft" mt="3">
          Computed with a standard shelf:{" "}
          <PlainLink to="/shelf">put your own products on the shelf</PlainLink>.
        </Text>
      )}
      {sheet.id !== null && onPutAway !== undefined && !readsOnly && (
        <Flex mt="5" gap="3" align="center" wrap="wrap" data-noprint>
          <SideButton disabled={busy} onClick={onPutAway}>
            Put the rest away and reckon again
          </SideButton>
          <Text fontSize="note" color="soft">
            What was poured counts; a started plan never changes by itself.
          </Text>
        </Flex>
      )}
      {!wide && papers}
      {sheet.id === null && !readsOnly && (
        <MainAction>
          <MainButton disabled={busy} onClick={onStart} w={{ base: "100%", lg: "auto" }}>
            Start the plan
          </MainButton>
        </MainAction>
      )}
    </Card>
  );
}

// Pours on a sheet, and how small it must be set to stand on one page of paper.
const PRINT_ZOOM: readonly [number, number][] = [
  [2, 0.75],
  [3, 0.68],
  [4, 0.58],
  [6, 0.48],
];
const SMALLEST_PRINT = 0.42;
// The same by all its lines: a day of draining pours nothing and has many.
const LINES_ZOOM: readonly [number, number][] = [
  [10, 0.75],
  [13, 0.66],
  [17, 0.56],
];
const MANY_LINES = 0.48;

function usePrintZoom(sheet: Treatment): void {
  const pours = sheet.steps.filter(({ step }) => step.kind === "add").length;
  const lines = sheet.steps.length;
  useEffect(() => {
    const byPours = PRINT_ZOOM.find(([most]) => pours <= most)?.[1] ?? SMALLEST_PRINT;
    const byLines = pours > 0 ? 1 : (LINES_ZOOM.find(([most]) => lines <= most)?.[1] ?? MANY_LINES);
    const zoom = Math.min(byPours, byLines);
    document.documentElement.style.setProperty("--print-zoom", String(zoom));
    return () => {
      document.documentElement.style.removeProperty("--print-zoom");
    };
  }, [pours, lines]);
}

function Notes({ sheet }: { sheet: Treatment }) {
  if (sheet.notes.length === 0) return null;
  return (
    <Box mb="4">
      {sheet.notes.map((note) => (
        <Text key={note.text} fontWeight="600" mt="1">
          {note.text}
        </Text>
      ))}
    </Box>
  );
}

function Left({ sheet }: { sheet: Treatment }) {
  if (sheet.unmet.length === 0) return null;
  return (
    <Box mt="4">
      <Text fontWeight="600">What this plan leaves</Text>
      {sheet.unmet.map((left) => (
        <Text key={left.reason} fontSize="note">
          {left.reason}
        </Text>
      ))}
    </Box>
  );
}

function NothingToAdd({ sheet, poolId }: { sheet: Treatment; poolId: string }) {
  return (
    <Card maxW="52rem">
      <Text fontSize="lead" fontWeight="600" mb="2">
        Nothing to add now.
      </Text>
      <Notes sheet={sheet} />
      <Left sheet={sheet} />
      <Text mt="2">
        <PlainLink to={`/pools/${poolId}/test`}>Test the water</PlainLink> for the next plan.
      </Text>
    </Card>
  );
}
