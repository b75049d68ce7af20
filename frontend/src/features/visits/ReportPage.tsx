import { Box, chakra, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useParams } from "react-router";
import { poolQuery, reportQuery } from "../../api/queries";
import type { OwnerReport } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { copied } from "../../components/copied";
import { PaperLink } from "../../components/PaperLink";
import { SelectField } from "../../components/SelectField";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { dayText } from "../../lib/days";
import { nameOf, rangeText, valueText } from "../../lib/measures";
import { useStore } from "../../lib/store";
import { clock } from "../../lib/times";
import { temperatureText, type Units, unitsStore } from "../../lib/units";

/** One day at a pool for its owner, to be printed or sent. */
export function ReportPage() {
  const { poolId = "" } = useParams();
  const units = useStore(unitsStore);
  const [day, setDay] = useState<string | null>(null);
  const head = useQuery(poolQuery(poolId));
  const report = useQuery(reportQuery(poolId, day, units));
  if (report.isPending || head.isPending) return <Loading what="the report" />;
  if (report.isError) return <Failed error={report.error} again={() => void report.refetch()} />;
  const told = report.data;
  return (
    <Box maxW="48rem">
      <Flex gap="3" mb="4" data-noprint wrap="wrap" align="end">
        {told.days.length > 0 && (
          <Box w="14rem">
            <SelectField
              label="The day"
              options={told.days.map((one) => ({ value: one, label: dayText(one) }))}
              value={told.day}
              onPick={setDay}
            />
          </Box>
        )}
        <SideButton onClick={() => window.print()}>Print</SideButton>
        <SideButton onClick={() => void copied(told.text)}>Copy as a message</SideButton>
        <PaperLink poolId={poolId} kind="visit" of={{ last: told.day }}>
          As PDF
        </PaperLink>
        <PlainLink to={`/pools/${poolId}`} minH="44px" display="inline-flex" alignItems="center">
          Back to the pool
        </PlainLink>
      </Flex>
      <Report told={told} zone={head.data?.settings.time_zone ?? "UTC"} units={units} />
    </Box>
  );
}

interface ReportProps {
  told: OwnerReport;
  zone: string;
  units: Units;
}

function Report({ told, zone, units }: ReportProps) {
  const lines = (all: OwnerReport["done"]) =>
    all.map(({ at, title, detail }) => [clock(at, zone), title, detail] as const);
  return (
    <Card as="article" aria-label="Report for the owner" p={{ base: "5", md: "7" }}>
      <Heading as="h1" fontSize="title" lineHeight="1.2">
        {told.pool}
      </Heading>
      <Text color="soft" mb="4">
        {[told.place, dayText(told.day), ...told.by].filter(Boolean).join(" \u00b7 ")}
      </Text>
      {told.empty && <Text>Nothing was entered on this day.</Text>}
      {told.looks.length > 0 && <Part title="Seen">{told.looks.join("; ")}</Part>}
      {told.found.length > 0 && (
        <Part title="Found">
          <Found told={told} units={units} />
        </Part>
      )}
      <Lines title="Added" lines={lines(told.poured)} />
      <Lines title="Done" lines={lines(told.done)} />
      {told.notes.length > 0 && <Part title="Note">{told.notes.join(" ")}</Part>}
      {told.trades.length > 0 && <Part title="For a licensed trade">{told.trades.join("; ")}</Part>}
      {told.comes_back && <Part title="We come back">This pool needs another visit.</Part>}
      {told.cost !== null && (
        <Part title="Cost of what was added">
          {told.currency}
          {told.cost.toFixed(2)}
        </Part>
      )}
      <Part title="May they swim now?">{told.swim}</Part>
      <Part title="Next">
        {told.next.text}. {told.next.why}
      </Part>
      {told.ahead.length > 0 && (
        <Part title="Then">
          {told.ahead.map(({ day, title }) => (
            <Text key={`${day}${title}`}>
              {dayText(day)}: {title}
            </Text>
          ))}
        </Part>
      )}
    </Card>
  );
}

function Part({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <Grid
      as="section"
      aria-label={title}
      templateColumns={{ base: "1fr", md: "9rem minmax(0,1fr)" }}
      columnGap="4"
      py="2"
      borderTop="1px solid"
      borderColor="hairline"
    >
      <Text as="h2" color="soft" fontSize="note" lineHeight="1.7">
        {title}
      </Text>
      <Box minW="0">{children}</Box>
    </Grid>
  );
}

const Table = chakra("table", {
  base: {
    w: "100%",
    fontVariantNumeric: "tabular-nums",
    "& td": { py: "0.5", pr: { base: "2", sm: "4" }, verticalAlign: "top" },
    "& td:first-of-type": { hyphens: "auto" },
  },
});

function Found({ told, units }: { told: OwnerReport; units: Units }) {
  return (
    <Table aria-label="Found">
      <tbody>
        {told.found.map(({ measure, value, low, high, verdict }) => (
          <tr key={measure}>
            <td>{nameOf(measure)}</td>
            <Box as="td" fontWeight="700" textAlign="right" whiteSpace="nowrap">
              {measure === "temperature_c" ? temperatureText(value, units) : valueText(measure, value)}
            </Box>
            <Box as="td" color="soft" fontSize="note" whiteSpace={{ sm: "nowrap" }}>
              {rangeText(measure, low, high)}
            </Box>
            <td>{verdict.code === "not_managed" ? "" : verdict.text}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function Lines({ title, lines }: { title: string; lines: (readonly [string, string, string])[] }) {
  if (lines.length === 0) return null;
  return (
    <Part title={title}>
      {lines.map(([at, what, detail]) => (
        <Grid key={`${at}${what}`} templateColumns="5.25rem minmax(0,1fr)">
          <Text color="soft" fontVariantNumeric="tabular-nums">
            {at}
          </Text>
          <Text>
            {what}
            {detail && (
              <Text as="span" color="soft" fontSize="note" display="block">
                {detail}
              </Text>
            )}
          </Text>
        </Grid>
      ))}
    </Part>
  );
}
