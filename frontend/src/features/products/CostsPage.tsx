import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { type CostLine, costsQuery } from "../../api/costs";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";

const SPANS = [
  { value: "30", label: "30 days" },
  { value: "90", label: "90 days" },
  { value: "365", label: "A year" },
] as const;
const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

/** What was poured, in money: by product, pool, month and round. */
export function CostsPage() {
  const units = useStore(unitsStore);
  const [days, setDays] = useState<(typeof SPANS)[number]["value"]>("365");
  const found = useQuery(costsQuery(Number(days), units));
  useEffect(() => {
    document.title = "Costs · Kumpan";
  }, []);
  return (
    <>
      <Heading as="h1" fontSize="title" mb="2">
        What it cost
      </Heading>
      <Text mb="3">
        Everything that was poured and noted, at the last price of each product.{" "}
        <PlainLink to="/shelf">To the shelf</PlainLink>
      </Text>
      <Box mb="4">
        <PickOne label="Over the last" options={SPANS} value={days} onPick={setDays} inline />
      </Box>
      {found.isPending && <Loading what="the costs" />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && (
        <Grid gap="5">
          <Card as="section" aria-label="In all">
            <Text fontSize="title" fontWeight="700" fontVariantNumeric="tabular-nums">
              {money(found.data.total, found.data.currency)}
            </Text>
            {found.data.gaps.map((gap) => (
              <Text key={gap} fontSize="note" color="accent" fontWeight="600">
                {gap}
              </Text>
            ))}
          </Card>
          <Grid templateColumns={{ base: "1fr", lg: "1fr 1fr" }} gap="5" alignItems="start">
            <Lines title="By product" lines={found.data.products} currency={found.data.currency} />
            <Lines
              title="By pool"
              lines={found.data.pools}
              currency={found.data.currency}
              named={({ name }) => name || "A pool that is no longer here"}
            />
            <Lines
              title="By month"
              lines={found.data.months}
              currency={found.data.currency}
              named={({ key }) => monthName(key)}
            />
            <Lines
              title="By round"
              lines={found.data.rounds}
              currency={found.data.currency}
              named={({ key, name }) => `${name}, ${WEEKDAYS[Number(key.split("/")[1])] ?? ""}`}
            />
          </Grid>
        </Grid>
      )}
    </>
  );
}

const money = (cost: number, currency: string) => `${currency}${cost.toFixed(2)}`;

function monthName(key: string): string {
  return new Date(`${key}-15T12:00:00Z`).toLocaleDateString("en-US", { month: "long", year: "numeric" });
}

interface LinesProps {
  title: string;
  lines: readonly CostLine[];
  currency: string;
  named?: (line: CostLine) => ReactNode;
}

function Lines({ title, lines, currency, named = ({ name }) => name }: LinesProps) {
  if (lines.length === 0) return null;
  return (
    <Card as="section" aria-label={title}>
      <Heading as="h2" fontSize="lead" mb="2">
        {title}
      </Heading>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {lines.map((line) => (
          <Grid
            as="li"
            key={line.key}
            templateColumns="minmax(0,1fr) auto"
            gap="4"
            py="2"
            borderTop="1px solid"
            borderColor="hairline"
          >
            <Box>
              <Text>{named(line)}</Text>
              {line.used_text && (
                <Text fontSize="note" color="soft">
                  {line.used_text}
                </Text>
              )}
            </Box>
            <Text fontWeight="650" fontVariantNumeric="tabular-nums">
              {line.cost === null ? "no price" : money(line.cost, currency)}
            </Text>
          </Grid>
        ))}
      </Box>
    </Card>
  );
}
