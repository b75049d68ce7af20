import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import type { Place } from "../../api/costs";
import { choicesQuery, inventoryQuery, preferencesQuery, toBuyQuery } from "../../api/queries";
import type { BuyLine, InventoryLine } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { AddProduct } from "./AddProduct";
import { CountShelf } from "./CountShelf";
import { Measures } from "./Measures";
import { ProductLine } from "./ProductLine";

/** What stands on the shelf: stock is bought minus poured. */
export function InventoryPage() {
  const units = useStore(unitsStore);
  const shelf = useQuery(inventoryQuery(units));
  const choices = useQuery(choicesQuery());
  const habits = useQuery(preferencesQuery());
  const [counting, setCounting] = useState(false);
  useEffect(() => {
    document.title = "Products · Kumpan";
  }, []);
  if (shelf.isPending || choices.isPending || habits.isPending) return <Loading what="the shelf" />;
  if (shelf.isError) return <Failed error={shelf.error} again={() => void shelf.refetch()} />;
  if (choices.isError) return <Failed error={choices.error} again={() => void choices.refetch()} />;
  if (habits.isError) return <Failed error={habits.error} again={() => void habits.refetch()} />;
  const currency = habits.data.currency ?? "$";
  const spent = shelf.data.reduce((sum, line) => sum + (line.used_cost ?? 0), 0);
  return (
    <>
      <Heading as="h1" fontSize="title" mb="4">
        Products
      </Heading>
      <Grid templateColumns={{ base: "minmax(0,1fr)", lg: "minmax(0,1fr) 24rem" }} gap="5" alignItems="start">
        <Grid gap="5">
          <ToBuy units={units} currency={currency} empty={shelf.data.length === 0} />
          {counting ? (
            <Card as="section" aria-label="Count the shelf">
              <Heading as="h2" fontSize="lead" mb="2">
                Count the shelf
              </Heading>
              <CountShelf
                lines={shelf.data.filter(({ place }) => place !== "gone")}
                done={() => setCounting(false)}
              />
            </Card>
          ) : (
            <>
              {shelf.data.length === 0 && (
                <Card as="section" aria-label="On the shelf">
                  <Text>
                    Nothing on the shelf yet. Until then plans are computed with the usual shelf: liquid
                    chlorine, acid, sodas, calcium, stabilizer, salt.
                  </Text>
                </Card>
              )}
              {shelf.data.length > 0 && (
                <Flex gap="3" wrap="wrap" align="center">
                  <SideButton onClick={() => setCounting(true)}>Count the shelf</SideButton>
                  <Text>
                    {spent > 0 &&
                      `Poured in the last year, as far as prices are known: ${currency}${spent.toFixed(2)}. `}
                    <PlainLink to="/shelf/costs">What it cost</PlainLink>
                  </Text>
                </Flex>
              )}
              {SECTIONS.map(({ place, title }) => (
                <Section
                  key={place}
                  title={title}
                  lines={shelf.data.filter((line) => line.place === place)}
                  currency={currency}
                />
              ))}
            </>
          )}
        </Grid>
        <Grid gap="5">
          <AddProduct choices={choices.data} units={units} />
          <Measures key={units} habits={habits.data} shelf={shelf.data} units={units} />
        </Grid>
      </Grid>
    </>
  );
}

const SECTIONS: readonly { place: Place; title: string }[] = [
  { place: "here", title: "On the shelf" },
  { place: "pool", title: "At a pool of its own" },
  { place: "store", title: "In the store" },
  { place: "gone", title: "Gone" },
];

function Section({
  title,
  lines,
  currency,
}: {
  title: string;
  lines: readonly InventoryLine[];
  currency: string;
}) {
  if (lines.length === 0) return null;
  return (
    <Card as="section" aria-label={title}>
      <Heading as="h2" fontSize="lead" mb="2">
        {title}
      </Heading>
      <Box as="ul" listStyleType="none" p="0" m="0">
        {lines.map((line, index) => (
          <ProductLine key={line.id} line={line} first={index === 0} currency={currency} />
        ))}
      </Box>
    </Card>
  );
}

function ToBuy({ units, currency, empty }: { units: Units; currency: string; empty: boolean }) {
  const found = useQuery({ ...toBuyQuery(units), enabled: !empty });
  if (empty) return null;
  return (
    <Card as="section" aria-label="What to buy">
      <Heading as="h2" fontSize="lead" mb="2">
        What to buy
      </Heading>
      {found.isPending && <Loading what="the list" />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data?.length === 0 && <Text>Nothing: the plans offered now are covered for two weeks.</Text>}
      {found.data?.map((line) => (
        <BuyRow key={line.product_id} line={line} currency={currency} />
      ))}
    </Card>
  );
}

function BuyRow({ line, currency }: { line: BuyLine; currency: string }) {
  return (
    <Grid templateColumns="minmax(0,1fr) auto" gap="4" py="2" borderTop="1px solid" borderColor="hairline">
      <Box>
        <Text fontWeight="650">{line.label}</Text>
        <Text fontSize="note" color="soft">
          {line.short_text} short, {line.why}
        </Text>
      </Box>
      <Box textAlign="right">
        <Text fontWeight="650">{line.packages_text || "package not known"}</Text>
        {line.cost !== null && (
          <Text fontSize="note" color="soft">
            {currency}
            {line.cost.toFixed(2)}
          </Text>
        )}
      </Box>
    </Grid>
  );
}
