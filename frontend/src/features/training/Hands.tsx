import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import { Trouble } from "../../api/client";
import type { TrainingGame } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { fieldsOf, KitForm, useKit } from "../../forms/kit";
import type { useTraining } from "./useTraining";

interface HandsProps {
  game: TrainingGame;
  busy: boolean;
  move: ReturnType<typeof useTraining>["move"];
}

interface Pour {
  product: string;
  amount: string;
}
const { Field, Select } = fieldsOf<Pour>();

const SHARES = [0.1, 0.25, 0.4, 0.5] as const;
const PERCENTS = [0, 30, 55, 80, 100] as const;

/** What one can do at the pool, in the order of a visit: test, pour, work, wait. */
export function Hands({ game, busy, move }: HandsProps) {
  const { shelf, has_cell } = game.scenario;
  const [problem, setProblem] = useState<string | null>(null);
  const kit = useKit<Pour>({
    start: { product: shelf[0]?.id ?? "", amount: "" },
    send: async ({ product, amount }, form) => {
      if (amount.trim() === "") return;
      setProblem(null);
      const said = await move({ kind: "add", product_id: product, amount });
      if (said !== null) throw new Trouble(said, "amount", 0);
      form.resetField("amount");
    },
  });
  const { product, amount } = kit.form.watch();
  const chosen = shelf.find(({ id }) => id === product);
  const unread = kit.form.formState.errors.root !== undefined;
  async function make(made: Parameters<typeof move>[0]) {
    setProblem(null);
    kit.form.clearErrors();
    setProblem(await move(made));
  }
  return (
    <Grid gap="4">
      {problem !== null && (
        <Text role="alert" color="accent" fontWeight="600">
          {problem}
        </Text>
      )}
      <Row label="Test">
        <SideButton disabled={busy} onClick={() => void make({ kind: "test" })}>
          Chlorine and pH
        </SideButton>
        <SideButton disabled={busy} onClick={() => void make({ kind: "full_test" })}>
          Everything
        </SideButton>
      </Row>
      <KitForm kit={kit}>
        <Flex gap="3" align="start" wrap="wrap">
          <Box minW="14rem" flex="1">
            <Select
              name="product"
              server={[]}
              label="Pour"
              options={shelf.map(({ id, label }) => ({ value: id, label }))}
            />
          </Box>
          <Box w={unread ? "16rem" : "10rem"}>
            <Field
              name="amount"
              label="How much"
              placeholder={chosen?.is_liquid ? "like 1 gal" : "like 2 lb"}
              help={chosen ? `1 ${chosen.is_liquid ? "jug" : "package"} is ${chosen.package}` : undefined}
            />
          </Box>
          <SideButton type="submit" alignSelf="start" mt="1.65rem" disabled={busy || amount.trim() === ""}>
            Pour it
          </SideButton>
        </Flex>
      </KitForm>
      <Row label="Work">
        <SideButton disabled={busy} onClick={() => void make({ kind: "brush" })}>
          Brush
        </SideButton>
        <SideButton disabled={busy} onClick={() => void make({ kind: "clean_filter" })}>
          Clean the filter
        </SideButton>
      </Row>
      <Row label="Replace water">
        {SHARES.map((share) => (
          <SideButton
            key={share}
            disabled={busy}
            aria-label={`Replace ${100 * share} % of the water`}
            onClick={() => void make({ kind: "replace_water", share })}
          >
            {100 * share} %
          </SideButton>
        ))}
      </Row>
      {has_cell && (
        <Row label="Cell to">
          {PERCENTS.map((percent) => (
            <SideButton
              key={percent}
              disabled={busy}
              aria-label={`Cell to ${percent} %`}
              onClick={() => void make({ kind: "cell", percent })}
            >
              {percent} %
            </SideButton>
          ))}
        </Row>
      )}
      <Row label="Let time pass">
        <MainButton minH="44px" disabled={busy} onClick={() => void make({ kind: "wait_evening" })}>
          To evening
        </MainButton>
        <MainButton minH="44px" disabled={busy} onClick={() => void make({ kind: "wait_morning" })}>
          To morning
        </MainButton>
        <SideButton disabled={busy} onClick={() => void make({ kind: "wait_hour" })}>
          An hour
        </SideButton>
      </Row>
    </Grid>
  );
}

function Row({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Box>
      <Text fontSize="note" color="soft" mb="1">
        {label}
      </Text>
      <Flex gap="2" wrap="wrap">
        {children}
      </Flex>
    </Box>
  );
}
