import { Box, chakra, Flex, Grid, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import type { InventoryLine } from "../../api/types";
import { SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { TextField } from "../../components/TextField";
import { personId } from "../../lib/person";
import { dayName } from "../../lib/times";

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
              line.days_left !== null && `lasts ${line.days_left} days`,
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
          {line.chemical === "sodium_hypochlorite" ? "Bought some, or tested it" : "Bought some"}
        </chakra.summary>
        <Flex gap="6" wrap="wrap" align="end" pb="2">
          <Buy line={line} currency={currency} />
          {line.chemical === "sodium_hypochlorite" && <Strength line={line} />}
        </Flex>
      </chakra.details>
    </Box>
  );
}

function useSend() {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  async function send(work: () => Promise<unknown>, said: string): Promise<boolean> {
    try {
      await work();
      await queries.invalidateQueries({ queryKey: ["shelf"] });
      await queries.invalidateQueries({ queryKey: ["pool"] });
      setProblem(null);
      notify(said);
      return true;
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
      return false;
    }
  }
  return { problem, send };
}

const stamp = () => ({ id: crypto.randomUUID(), at: null, person_id: personId() });

function Buy({ line, currency }: { line: InventoryLine; currency: string }) {
  const [packages, setPackages] = useState("");
  const [price, setPrice] = useState("");
  const { problem, send } = useSend();
  async function buy() {
    const body = {
      ...stamp(),
      product_id: line.id,
      packages,
      price,
    };
    if (
      await send(
        () => take(client.POST("/api/v1/shelf/purchases", { body })),
        `Noted: ${packages} of ${line.label}.`,
      )
    ) {
      setPackages("");
      setPrice("");
    }
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void buy();
      }}
    >
      <Flex gap="2" align="end">
        <Box w="6.5rem">
          <TextField
            label="Packages"
            inputMode="decimal"
            aria-label={`Packages bought of ${line.label}`}
            value={packages}
            problem={problem}
            onText={setPackages}
          />
        </Box>
        <Box w="7.5rem">
          <TextField
            label={`Paid in all, ${currency}`}
            inputMode="decimal"
            aria-label={`Paid for ${line.label}`}
            value={price}
            onText={setPrice}
          />
        </Box>
        <SideButton type="submit" disabled={packages.trim() === ""}>
          Note it
        </SideButton>
      </Flex>
    </form>
  );
}

function Strength({ line }: { line: InventoryLine }) {
  const [percent, setPercent] = useState("");
  const { problem, send } = useSend();
  async function note() {
    const body = { ...stamp(), product_id: line.id, strength_percent: percent };
    if (
      await send(
        () => take(client.POST("/api/v1/shelf/strengths", { body })),
        `${line.label} counts as ${percent} % now.`,
      )
    )
      setPercent("");
  }
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void note();
      }}
    >
      <Flex gap="2" align="end">
        <Box w="8rem">
          <TextField
            label="Tested strength, %"
            inputMode="decimal"
            aria-label={`Tested strength of ${line.label}`}
            value={percent}
            problem={problem}
            onText={setPercent}
          />
        </Box>
        <SideButton type="submit" disabled={percent.trim() === ""}>
          Note it
        </SideButton>
      </Flex>
    </form>
  );
}
