import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { strategiesQuery } from "../../api/queries";
import type { Strategies, Strategy } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { nameOf, valueText } from "../../lib/measures";
import { hoursText } from "../../lib/times";
import type { Units } from "../../lib/units";

/** Which way is on the sheet: by what it looks to first, or with one product in place of its like. */
export interface Chosen {
  way: Strategy;
  use: string | null;
}

interface WaysCardProps {
  poolId: string;
  units: Units;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
}

/** The same plan with other products of the shelf, side by side; asked for, since it is reckoned anew. */
export function StrategiesCard({ poolId, units, chosen, onChoose }: WaysCardProps) {
  const [open, setOpen] = useState(false);
  const ways = useQuery({ ...strategiesQuery(poolId, units), enabled: open });
  return (
    <Card as="section" aria-label="Other ways" maxW="52rem" mt="5" data-noprint>
      <Flex justify="space-between" align="center" gap="4" wrap="wrap">
        <Box>
          <Heading as="h2" fontSize="lead">
            Other ways
          </Heading>
          <Text color="soft">
            The same aims with other products: money, pours, hours to swimming, what stays behind.
          </Text>
        </Box>
        {!open && <SideButton onClick={() => setOpen(true)}>Compare the ways</SideButton>}
      </Flex>
      {open && ways.isPending && <Loading what="the ways" />}
      {open && ways.isError && <Failed error={ways.error} again={() => void ways.refetch()} />}
      {ways.data && <Compared found={ways.data} chosen={chosen} onChoose={onChoose} />}
    </Card>
  );
}

type Row = Strategies["ways"][number];

function Compared({
  found,
  chosen,
  onChoose,
}: {
  found: Strategies;
  chosen: Chosen;
  onChoose: (chosen: Chosen) => void;
}) {
  if (found.ways.length === 0)
    return <Text mt="3">There is nothing to add, so there is nothing to compare.</Text>;
  const money = (cost: number | null) => (cost === null ? "–" : `${found.currency}${cost.toFixed(2)}`);
  const builds = (["cyanuric_acid", "calcium_hardness", "salt"] as const).filter((measure) =>
    found.ways.some((way) => way.in_four_weeks[measure] !== undefined),
  );
  const rows: [string, (way: Row) => string][] = [
    ["Worth of what is poured", (way) => money(way.used_cost)],
    ["To buy first", (way) => bought(way, money)],
    ["Pours", (way) => (way.days > 1 ? `${way.additions} over ${way.days} days` : String(way.additions))],
    [
      "Test that opens it",
      (way) => (way.minutes_to_swim === null ? "–" : `after ${hoursText(way.minutes_to_swim)}`),
    ],
    ...builds.map((measure): [string, (way: Row) => string] => [
      `${nameOf(measure)} in 4 weeks`,
      (way) => {
        const value = way.in_four_weeks[measure];
        return value === undefined ? "not known" : valueText(measure, value);
      },
    ]),
  ];
  return (
    <Box mt="4" overflowX="auto">
      <Box as="table" w="100%" aria-label="The ways side by side">
        <thead>
          <tr>
            <td />
            {found.ways.map((way) => (
              <Box as="th" key={way.name} textAlign="left" verticalAlign="top" pb="2" pr="4" minW="9rem">
                <Text fontWeight="650">{way.name}</Text>
                {way.products.map((product) => (
                  <Text key={product.label} fontSize="note" fontWeight="400" color="soft">
                    {product.amount_text} {product.label}
                  </Text>
                ))}
              </Box>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, text]) => (
            <Box as="tr" key={name} borderTop="1px solid" borderColor="hairline">
              <Box as="th" textAlign="left" fontWeight="400" color="soft" fontSize="note" py="2" pr="4">
                {name.charAt(0).toUpperCase() + name.slice(1)}
              </Box>
              {found.ways.map((way) => (
                <Box as="td" key={way.name} pr="4">
                  {text(way)}
                </Box>
              ))}
            </Box>
          ))}
          <tr>
            <td />
            {found.ways.map((way) => (
              <Box as="td" key={way.name} pt="3" pr="4">
                {way.way === chosen.way && way.use === chosen.use ? (
                  <Text fontWeight="650" minH="44px" lineHeight="44px">
                    In the plan
                  </Text>
                ) : (
                  <SideButton
                    aria-label={`Take this way: ${way.name}`}
                    onClick={() => onChoose({ way: way.way, use: way.use })}
                  >
                    Take this way
                  </SideButton>
                )}
              </Box>
            ))}
          </tr>
        </tbody>
      </Box>
      {found.not_offered.map((product) => (
        <Text key={product.label} mt="2" fontSize="note">
          Not here, {product.label}: {product.why}
        </Text>
      ))}
      {found.between.map((line) => (
        <Text key={line.code} mt="3" fontWeight="600">
          {line.text}
        </Text>
      ))}
      <Text mt="3" fontSize="note" color="soft">
        {found.loss_text} Prices are those noted on the shelf.
      </Text>
    </Box>
  );
}

function bought(way: Row, money: (cost: number | null) => string): string {
  if (way.missing.length === 0) return "nothing";
  const what = way.missing.map((line) => line.packages_text || `${line.short_text} ${line.label}`).join(", ");
  return way.buy_cost === null || way.buy_cost === 0 ? what : `${what}, ${money(way.buy_cost)}`;
}
