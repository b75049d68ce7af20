import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { Trouble } from "../../api/client";
import { postOrKeep, SAVED } from "../../api/outbox";
import { procedureQuery } from "../../api/queries";
import type { Ask, Procedure } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { TextField } from "../../components/TextField";
import { PlainLink } from "../../components/TextLink";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { useDraft } from "../../lib/useDraft";
import { AcidHelper } from "./AcidHelper";
import { AskField } from "./AskField";
import { StepCard } from "./StepCard";

/** A piece of care, one step at a time, large enough for one thumb. */
export function ProcedurePage() {
  const { poolId = "", key = "" } = useParams();
  const units = useStore(unitsStore);
  const found = useQuery(procedureQuery(poolId, key, units));
  return (
    <>
      <PoolHeader poolId={poolId} />
      {found.isPending && <Loading what="the steps" />}
      {found.isError && <Failed error={found.error} again={() => void found.refetch()} />}
      {found.data && <Run key={key} procedure={found.data} poolId={poolId} units={units} />}
    </>
  );
}

interface Draft {
  id: string;
  step: number;
  values: Record<string, string>;
  note: string;
}

function Run({ procedure, poolId, units }: { procedure: Procedure; poolId: string; units: Units }) {
  const start: Draft = { id: crypto.randomUUID(), step: 0, values: {}, note: "" };
  const [draft, change, forget] = useDraft<Draft>(`${poolId}.care.${procedure.key}`, start);
  const set = (part: Partial<Draft>) => change({ ...draft, ...part });
  const value = (name: string, text: string) => set({ values: { ...draft.values, [name]: text } });
  const step = procedure.steps[draft.step];
  return (
    <Box maxW="40rem">
      <Flex justify="space-between" align="baseline" gap="3" wrap="wrap">
        <Heading as="h2" fontSize="title">
          {procedure.title}
        </Heading>
        <Text color="soft" fontSize="note">
          {step ? `Step ${draft.step + 1} of ${procedure.steps.length}` : "All steps done"}
        </Text>
      </Flex>
      <Flex gap="1" my="3" aria-hidden="true">
        {procedure.steps.map((one, index) => (
          <Box
            key={one.text}
            flex="1"
            h="6px"
            borderRadius="3px"
            bg={index === draft.step ? "accent" : index < draft.step ? "ink" : "hairline"}
          />
        ))}
      </Flex>
      {draft.step === 0 && procedure.materials.length > 0 && (
        <Text mb="3">
          <Text as="span" fontWeight="700">
            At hand:
          </Text>{" "}
          {procedure.materials.join("; ")}.
        </Text>
      )}
      {step ? (
        <StepCard
          key={draft.step}
          step={step}
          values={draft.values}
          onValue={value}
          extra={
            step.hazard === "cell_acid" && step.text.startsWith("Only now") ? (
              <AcidHelper units={units} />
            ) : null
          }
          onBack={draft.step > 0 ? () => set({ step: draft.step - 1 }) : null}
          onNext={() => set({ step: draft.step + 1 })}
          onToTheEnd={() => set({ step: procedure.steps.length })}
        />
      ) : (
        <Finish
          procedure={procedure}
          poolId={poolId}
          units={units}
          draft={draft}
          onValue={value}
          onNote={(note) => set({ note })}
          onBack={() => set({ step: procedure.steps.length - 1 })}
          onDone={forget}
        />
      )}
      <Box mt="4">
        <PlainLink to={`/pools/${poolId}/care`}>Leave it for now</PlainLink>{" "}
        <Text as="span" color="soft" fontSize="note">
          What is typed stays on this device.
        </Text>
      </Box>
    </Box>
  );
}

interface FinishProps {
  procedure: Procedure;
  poolId: string;
  units: Units;
  draft: Draft;
  onValue: (name: string, text: string) => void;
  onNote: (note: string) => void;
  onBack: () => void;
  onDone: () => void;
}

interface Finished {
  next_dates: string[];
  water_text: string;
}

/** What was taken in, once more, and into the journal with it. */
function Finish({ procedure, poolId, units, draft, onValue, onNote, onBack, onDone }: FinishProps) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const [busy, setBusy] = useState(false);
  const asks: Ask[] = [...procedure.steps.flatMap((step) => step.asks), ...procedure.asks_at_end];

  async function keep() {
    setBusy(true);
    setTrouble(null);
    try {
      const body = { id: draft.id, person_id: personId(), values: draft.values, note: draft.note };
      const path = `/api/v1/pools/${poolId}/procedures/${procedure.key}/finish?metric=${units === "metric"}`;
      const found = await postOrKeep<Finished>(path, body, procedure.title);
      onDone();
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify(
        found === SAVED
          ? "Kept on this device; it is sent when the server answers."
          : [`${procedure.title}: in the journal.`, found.water_text, ...found.next_dates]
              .filter(Boolean)
              .join(" "),
      );
      navigate(`/pools/${poolId}/care`);
    } catch (error) {
      setTrouble(error instanceof Trouble ? error : new Trouble(String(error), null, 0));
    } finally {
      setBusy(false);
    }
  }

  return (
    <Card>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void keep();
        }}
      >
        {asks.map((ask) => (
          <Box key={ask.name} mb="3">
            <AskField
              ask={ask}
              value={draft.values[ask.name] ?? ""}
              problem={trouble?.field === ask.name ? trouble.message : null}
              onValue={(text) => onValue(ask.name, text)}
            />
          </Box>
        ))}
        <TextField label="Note" value={draft.note} onText={onNote} />
        {trouble !== null && !asks.some((ask) => ask.name === trouble.field) && (
          <Text role="alert" color="accent" fontWeight="600" mt="3">
            {trouble.message}
          </Text>
        )}
        <MainButton type="submit" mt="4" w="100%" minH="64px" disabled={busy}>
          {busy ? "Saving …" : "Done, into the journal"}
        </MainButton>
        <SideButton mt="3" w="100%" onClick={onBack}>
          Back to the last step
        </SideButton>
      </form>
    </Card>
  );
}
