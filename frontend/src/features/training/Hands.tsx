import { Box, Flex, Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { TrainingGame } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import type { useTraining } from "./useTraining";

interface HandsProps {
  game: TrainingGame;
  busy: boolean;
  move: ReturnType<typeof useTraining>["move"];
}

const SHARES = [0.1, 0.25, 0.4, 0.5] as const;
const PERCENTS = [0, 30, 55, 80, 100] as const;

/** What one can do at the pool, in the order of a visit: test, pour, work, wait. */
export function Hands({ game, busy, move }: HandsProps) {
  const { shelf, has_cell } = game.scenario;
  const [product, setProduct] = useState(shelf[0]?.id ?? "");
  const [amount, setAmount] = useState("");
  const [problem, setProblem] = useState<string | null>(null);
  const [unread, setUnread] = useState<string | null>(null);
  const chosen = shelf.find(({ id }) => id === product);
  async function make(made: Parameters<typeof move>[0]) {
    setProblem(null);
    setUnread(null);
    setProblem(await move(made));
  }
  async function pour() {
    setProblem(null);
    const said = await move({ kind: "add", product_id: product, amount });
    setUnread(said);
    if (said === null) setAmount("");
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
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (amount.trim() !== "") void pour();
        }}
      >
        <Flex gap="3" align="start" wrap="wrap">
          <Box minW="14rem" flex="1">
            <SelectField
              label="Pour"
              options={shelf.map(({ id, label }) => ({ value: id, label }))}
              value={product}
              onPick={setProduct}
            />
          </Box>
          <Box w={unread === null ? "10rem" : "16rem"}>
            <TextField
              label="How much"
              placeholder={chosen?.is_liquid ? "like 1 gal" : "like 2 lb"}
              help={chosen ? `1 ${chosen.is_liquid ? "jug" : "package"} is ${chosen.package}` : undefined}
              problem={unread}
              value={amount}
              onText={setAmount}
            />
          </Box>
          <SideButton type="submit" alignSelf="start" mt="1.65rem" disabled={busy || amount.trim() === ""}>
            Pour it
          </SideButton>
        </Flex>
      </form>
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
