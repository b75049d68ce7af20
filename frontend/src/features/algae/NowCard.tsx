import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { useMaintenance } from "../../api/care";
import { offerQuery, treatmentQuery } from "../../api/queries";
import type { Rescue, Treatment } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { Failed } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { PressureForm } from "../../forms/PressureForm";
import { clock } from "../../lib/times";
import type { Units } from "../../lib/units";

interface NowProps {
  seen: Rescue;
  poolId: string;
  units: Units;
  zone: string;
  filter: string;
}

const TITLES: Record<string, string> = {
  test: "Now: test and look",
  prepare: "Now: prepare",
  balance: "Now: balance pH",
  round: "Now: the next round",
  clear: "Now: clear away what died",
  week: "Now: hold it for the week",
  after: "Now: finish",
};

/** What is due now: the sheet of this stage, to be opened and ticked; the test; the filter's gauge. */
export function NowCard({ seen, poolId, units, zone, filter }: NowProps) {
  const go = useNavigate();
  const started = useQuery(treatmentQuery(poolId, units));
  const openSheet = started.data?.id ? started.data : undefined;
  const offer = useQuery({ ...offerQuery(poolId, { plan: "rescue" }, units), enabled: !openSheet });
  const sheet = openSheet ?? offer.data;
  const testing = seen.board.stage === "test" && !openSheet;
  return (
    <Card as="section" aria-label="What is due now">
      <Heading as="h2" fontSize="title" lineHeight="1.25" mb="2">
        {openSheet ? "A plan is under way" : TITLES[seen.board.stage]}
      </Heading>
      {offer.isError && !openSheet && <Failed error={offer.error} again={() => void offer.refetch()} />}
      {sheet && <Steps sheet={sheet} zone={zone} />}
      <Flex mt="4" gap="3" wrap="wrap">
        {testing ? (
          <MainButton onClick={() => void go(`/pools/${poolId}/test`)}>Look and test</MainButton>
        ) : (
          <>
            <MainButton onClick={() => void go(`/pools/${poolId}/plan?plan=rescue`)}>
              {openSheet ? "Go on with the plan" : "Open this plan"}
            </MainButton>
            <SideButton minH="52px" onClick={() => void go(`/pools/${poolId}/test`)}>
              Look and test
            </SideButton>
          </>
        )}
      </Flex>
      <Gauge poolId={poolId} filter={filter} />
    </Card>
  );
}

const SHOWN = 6;

function Steps({ sheet, zone }: { sheet: Treatment; zone: string }) {
  const left = sheet.steps.filter(({ step, ticked }) => step.kind !== "wait" && ticked === null);
  return (
    <Box as="ol" listStyleType="none" p="0" m="0">
      {left.slice(0, SHOWN).map(({ step, number, at }) => (
        <Flex as="li" key={number} gap="3" py="1.5" borderTop="1px solid" borderColor="hairline">
          <Text w="4.75rem" flexShrink="0" color="soft" fontVariantNumeric="tabular-nums" whiteSpace="nowrap">
            {clock(at, zone)}
          </Text>
          <Text fontWeight={step.kind === "add" ? "700" : "500"}>
            {step.rounded_text ? `${step.rounded_text} of ${step.title}` : step.title}
          </Text>
        </Flex>
      ))}
      {left.length > SHOWN && (
        <Text color="soft" fontSize="note">
          And {left.length - SHOWN} more on the plan.
        </Text>
      )}
      {left.length === 0 && sheet.unmet.map((line) => <Text key={line.code}>{line.reason}</Text>)}
      {sheet.notes.map((note) => (
        <Text key={note.code} fontSize="note" mt="2">
          {note.text}
        </Text>
      ))}
    </Box>
  );
}

const PROCEDURES: Record<string, string> = {
  sand: "backwash",
  cartridge: "cartridge_hose",
  de: "de_recharge",
};

/** The gauge between rounds: it says when the filter is full. */
function Gauge({ poolId, filter }: { poolId: string; filter: string }) {
  const care = useMaintenance(poolId);
  return (
    <Box mt="5">
      <PressureForm care={care} label="Filter gauge">
        <PlainLink
          to={`/pools/${poolId}/care/do/${PROCEDURES[filter] ?? "backwash"}`}
          minH="44px"
          display="inline-flex"
          alignItems="center"
        >
          Clean the filter
        </PlainLink>
      </PressureForm>
    </Box>
  );
}
