import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useState } from "react";
import { leavingOut, type useVisit, type VisitLine } from "../../api/visit";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PlainLink } from "../../components/TextLink";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import { addressOf } from "../../lib/addresses";
import { clock } from "../../lib/times";

interface GroupProps {
  title: string;
  lines: readonly VisitLine[];
  poolId: string;
  visit: ReturnType<typeof useVisit>;
  goesOn: boolean;
  zone: string;
  /** Chemicals wait for the test. */
  locked: boolean;
}

/** One part of a visit: all as usual in one tap, or each line for itself. */
export function VisitGroupCard({ title, lines, poolId, visit, goesOn, zone, locked }: GroupProps) {
  const open = lines.filter(({ usual, mark, key }) => usual && mark === "open" && !visit.isTicked(key));
  return (
    <Card as="section" aria-label={title} p={{ base: "3", md: "4" }}>
      <Flex justify="space-between" align="center" gap="3" minH="44px" mb="2">
        <Heading as="h3" fontSize="lead">
          {title}
        </Heading>
        {goesOn && open.length > 0 && (
          <SideButton onClick={() => void visit.usual(open.map(({ key }) => key))}>
            {open.length === 1 ? "As usual" : "All as usual"}
          </SideButton>
        )}
      </Flex>
      {locked && (
        <Text color="soft">They open when the test of this visit is in: cleaning stirs the water up.</Text>
      )}
      <Box as="ul" listStyleType="none" p="0" m="0">
        {lines.map((line) => (
          <Line
            key={line.key}
            line={line}
            poolId={poolId}
            visit={visit}
            goesOn={goesOn && !locked}
            zone={zone}
            alone={open.length === 1}
          />
        ))}
      </Box>
    </Card>
  );
}

const WAYS: Record<string, string> = {
  slip: "Enter it",
  sheet: "To the plan",
  week: "How much",
  season: "To the list",
  benches: "To the equipment",
};

interface LineProps {
  line: VisitLine;
  poolId: string;
  visit: ReturnType<typeof useVisit>;
  goesOn: boolean;
  zone: string;
  /** The group's own button ticks it. */
  alone: boolean;
}

function Line({ line, poolId, visit, goesOn, zone, alone }: LineProps) {
  const [leaving, setLeaving] = useState(false);
  const ticked = visit.isTicked(line.key);
  const open = line.mark === "open" && !ticked;
  const way = WAYS[line.station ?? ""];
  const where = addressOf(poolId, line.station ?? "");
  return (
    <Box as="li" borderTop="1px solid" borderColor="hairline" py="2">
      <Flex gap="3" align="center" wrap="wrap" rowGap="0">
        <Text aria-hidden fontWeight="700" w="1.2rem">
          {line.mark === "done" || ticked ? "✓" : line.mark === "skipped" ? "–" : "○"}
        </Text>
        <Box flex="1" minW="12rem">
          <Text fontWeight="600" color={open ? "ink" : "soft"}>
            {line.title}
            <Text as="span" fontWeight="400" fontSize="note" color="soft">
              {visit.waiting.includes(line.key) && ", waits to be sent"}
              {line.mark === "done" && line.at !== null && `, done at ${clock(line.at, zone)}`}
              {line.mark === "skipped" && ", left out this time"}
            </Text>
          </Text>
          {open && (line.detail || line.why) && (
            <Text fontSize="note" color="soft">
              {[line.detail, line.why].filter(Boolean).join(" ")}
            </Text>
          )}
        </Box>
        {goesOn && open && (
          <Flex gap="3" align="center" ml="auto">
            {way && where && <PlainLink to={where}>{way}</PlainLink>}
            {line.procedure !== null && (
              <PlainLink to={`/pools/${poolId}/care/do/${line.procedure}`}>Steps</PlainLink>
            )}
            {line.usual && !alone && (
              <SideButton
                px="3"
                aria-label={`${line.title}: done`}
                onClick={() => void visit.usual([line.key])}
              >
                ✓
              </SideButton>
            )}
            {line.group !== "look" && line.station === null && (
              <SideButton
                px="3"
                aria-label={`${line.title}: leave it out`}
                onClick={() => setLeaving(!leaving)}
              >
                –
              </SideButton>
            )}
          </Flex>
        )}
      </Flex>
      {leaving && open && (
        <LeaveOut
          busy={visit.goes(leavingOut(line.key))}
          onSend={(reason) => visit.leaveOut(line, reason)}
          done={() => setLeaving(false)}
        />
      )}
    </Box>
  );
}

interface Left {
  reason: string;
}
const left = fieldsOf<Left>();

interface LeaveOutProps {
  busy: boolean;
  onSend: (reason: string) => Promise<boolean>;
  done: () => void;
}

function LeaveOut({ busy, onSend, done }: LeaveOutProps) {
  const kit = useKit<Left>({
    start: { reason: "" },
    send: async ({ reason }) => {
      if (await onSend(reason)) done();
    },
  });
  return (
    <KitForm kit={kit}>
      <Flex gap="3" align="end" mt="2" wrap="wrap">
        <Box flex="1" minW="12rem">
          <left.Field name="reason" label="Why it is left out this time" autoFocus />
        </Box>
        <SideButton type="submit" disabled={busy || kit.form.watch("reason").trim() === ""}>
          Leave it out
        </SideButton>
      </Flex>
    </KitForm>
  );
}
