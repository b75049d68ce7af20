import { Box, chakra, Flex, Grid, Text } from "@chakra-ui/react";
import { client, take } from "../../api/client";
import type { InventoryLine } from "../../api/types";
import { SideButton } from "../../components/Button";
import { FormProblem, fieldsOf, KitForm, useKit } from "../../forms/kit";
import { dayName } from "../../lib/times";
import { PlaceForm } from "./PlaceForm";
import { stamp, useTell } from "./useTell";

interface ProductLineProps {
  line: InventoryLine;
  first: boolean;
  currency: string;
}

/** One product: what is left, what it is worth now, what the year used; buying and testing it. */
export function ProductLine({ line, first, currency }: ProductLineProps) {
  const aged = line.strength_now_percent < line.strength_percent - 0.05;
  return (
    <Box as="li" py="3" borderTop={first ? "none" : "1px solid"} borderColor="hairline">
      <Grid templateColumns={{ base: "1fr", md: "minmax(0,1fr) auto" }} columnGap="4" rowGap="1">
        <Box>
          <Text fontWeight="650">{line.label}</Text>
          <Text fontSize="note" color="soft">
            {[
              line.form,
              line.package_text && `${line.package_text} a package`,
              line.price !== null && `${currency}${line.price.toFixed(2)} each`,
              line.bought_at && `bought ${dayName(line.bought_at, "UTC")}`,
            ]
              .filter(Boolean)
              .join(" · ")}
          </Text>
          {line.label_text && (
            <Text fontSize="note" color="soft">
              {line.label_text}
            </Text>
          )}
          {line.past_date && (
            <Text fontSize="note" fontWeight="600" color="accent">
              Over the date printed on it: test its strength, or let it be and buy anew.
            </Text>
          )}
          {aged && (
            <Text fontSize="note" fontWeight="600">
              Now about {line.strength_now_percent.toFixed(1)} % of {line.strength_percent} %: it ages, and
              doses allow for it.
            </Text>
          )}
        </Box>
        <Box textAlign={{ md: "right" }}>
          <Text fontWeight="650">{line.stock_text}</Text>
          <Text fontSize="note" color="soft">
            {[
              line.days_left !== null && `lasts ${line.days_left} ${line.days_left === 1 ? "day" : "days"}`,
              line.used_text && `${line.used_text} in a year`,
              line.used_cost !== null && `${currency}${line.used_cost.toFixed(2)}`,
            ]
              .filter(Boolean)
              .join(" · ")}
          </Text>
        </Box>
      </Grid>
      <chakra.details>
        <chakra.summary
          minH="44px"
          display="flex"
          alignItems="center"
          cursor="pointer"
          color="rope"
          fontWeight="600"
        >
          {line.chemical === "sodium_hypochlorite" ? "Bought, tested, moved" : "Bought or moved"}
        </chakra.summary>
        <Flex gap="6" wrap="wrap" align="end" pb="3">
          <Buy line={line} currency={currency} />
          {line.chemical === "sodium_hypochlorite" && <Strength line={line} />}
        </Flex>
        <Box pb="3">
          <PlaceForm line={line} />
        </Box>
        <Purchases line={line} currency={currency} />
      </chakra.details>
    </Box>
  );
}

/** What was paid for it each time. */
function Purchases({ line, currency }: { line: InventoryLine; currency: string }) {
  if (line.purchases.length === 0) return null;
  return (
    <Box as="ul" aria-label={`Purchases of ${line.label}`} listStyleType="none" p="0" m="0" pb="2">
      {line.purchases.map((one) => (
        <Text as="li" key={one.at} fontSize="note" color="soft">
          {dayName(one.at, "UTC")}: {one.packages} {one.packages === 1 ? "package" : "packages"}
          {one.price === null ? ", price not noted" : `, ${currency}${one.price.toFixed(2)} each`}
        </Text>
      ))}
    </Box>
  );
}

interface Bought {
  packages: string;
  price: string;
}
const bought = fieldsOf<Bought>();

function Buy({ line, currency }: { line: InventoryLine; currency: string }) {
  const tell = useTell();
  const kit = useKit<Bought>({
    start: { packages: "", price: "" },
    send: async (typed, form, id) => {
      const body = { ...stamp(), id, product_id: line.id, ...typed };
      await tell(
        take(client.POST("/api/v1/shelf/purchases", { body })),
        `Noted: ${typed.packages} of ${line.label}.`,
      );
      form.reset();
    },
  });
  return (
    <KitForm kit={kit}>
      <Flex gap="2" align="end">
        <Box w="6.5rem">
          <bought.Amount name="packages" label="Packages" aria-label={`Packages bought of ${line.label}`} />
        </Box>
        <Box w="7.5rem">
          <bought.Amount
            name="price"
            label={`Paid in all, ${currency}`}
            aria-label={`Paid for ${line.label}`}
          />
        </Box>
        <SideButton type="submit" disabled={kit.form.watch("packages").trim() === ""}>
          Note it
        </SideButton>
      </Flex>
      <FormProblem shown={["packages", "price"]} />
    </KitForm>
  );
}

interface Tested {
  percent: string;
}
const tested = fieldsOf<Tested>();

function Strength({ line }: { line: InventoryLine }) {
  const tell = useTell();
  const kit = useKit<Tested>({
    start: { percent: "" },
    send: async ({ percent }, form) => {
      const body = { ...stamp(), product_id: line.id, strength_percent: percent };
      await tell(
        take(client.POST("/api/v1/shelf/strengths", { body })),
        `${line.label} counts as ${percent} % now.`,
      );
      form.reset();
    },
  });
  return (
    <KitForm kit={kit}>
      <Flex gap="2" align="end">
        <Box w="8rem">
          <tested.Amount
            name="percent"
            server="strength_percent"
            label="Tested strength, %"
            aria-label={`Tested strength of ${line.label}`}
          />
        </Box>
        <SideButton type="submit" disabled={kit.form.watch("percent").trim() === ""}>
          Note it
        </SideButton>
      </Flex>
      <FormProblem shown={["strength_percent"]} />
    </KitForm>
  );
}
