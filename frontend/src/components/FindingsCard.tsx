import { Box, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { assessmentQuery } from "../api/queries";
import type { AssessedFinding } from "../api/types";
import { nameOf } from "../lib/measures";
import { Card } from "./Card";

const URGENCY: Record<AssessedFinding["severity"], string> = {
  danger: "Danger",
  closes_pool: "Closes the pool",
  treat_today: "Today",
  treat_soon: "Soon",
  watch: "Watch",
  note: "To know",
};

/** What stands against the pool now, the most urgent first, each with its one remedy and what it stands on. */
export function FindingsCard({ poolId }: { poolId: string }) {
  const assessment = useQuery(assessmentQuery(poolId));
  const findings = assessment.data?.findings ?? [];
  if (findings.length === 0) return null;
  return (
    <Card as="section" aria-label="What is off now">
      <Text as="h2" fontSize="lead" fontWeight="700" mb="2">
        What is off now
      </Text>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {findings.map((finding, n) => (
          <FindingLine
            key={finding.code + finding.measures.join()}
            finding={finding}
            said={findings.slice(0, n).some(({ remedy }) => remedy.text === finding.remedy.text)}
          />
        ))}
      </Box>
    </Card>
  );
}

function FindingLine({ finding, said }: { finding: AssessedFinding; said: boolean }) {
  const urgent = finding.severity === "danger" || finding.severity === "closes_pool";
  return (
    <Box as="li" py="2" borderTopWidth="1px" borderColor="hairline">
      <Box as="details">
        <Box as="summary" cursor="pointer" minH="32px" pl="4" textIndent="-1rem">
          <Text as="span" fontWeight="700" color={urgent ? "accent" : "ink"}>
            {URGENCY[finding.severity]}:
          </Text>{" "}
          {finding.text}
        </Box>
        <Text fontSize="note" color="soft" pl="4">
          Stands on: {standsOn(finding)}
        </Text>
      </Box>
      {!said && finding.remedy.kind !== "none" && (
        <Text color="soft" pl="4">
          {finding.remedy.text}
        </Text>
      )}
    </Box>
  );
}

type Ground = Pick<AssessedFinding, "measures" | "entries" | "law">;

/** "Free chlorine; one entry of the log; law B.3." */
export function standsOn({ measures, entries, law }: Ground): string {
  const parts = measures.map(nameOf);
  if (entries.length > 0)
    parts.push(entries.length === 1 ? "one entry of the log" : `${entries.length} entries of the log`);
  return `${[...parts, `law ${law} of advice`].join("; ")}.`;
}
