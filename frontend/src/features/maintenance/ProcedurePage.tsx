import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useNavigate, useParams } from "react-router";
import { postOrKeep, SAVED } from "../../api/outbox";
import { procedureQuery } from "../../api/queries";
import type { Ask, Procedure } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { PaperLink } from "../../components/PaperLink";
import { TakePhoto } from "../../components/Photos";
import { PoolHeader } from "../../components/PoolHeader";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import { FormProblem, fieldsOf, type Kit, KitForm, useKit, useSaving } from "../../forms/kit";
import { personId } from "../../lib/person";
import { useStore } from "../../lib/store";
import { type Units, unitsStore } from "../../lib/units";
import { AcidHelper } from "./AcidHelper";
import { AskField, type ProcedureTyped } from "./AskField";
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

const { Field } = fieldsOf<ProcedureTyped>();

function Run({ procedure, poolId, units }: { procedure: Procedure; poolId: string; units: Units }) {
  const navigate = useNavigate();
  const queries = useQueryClient();
  const kit: Kit<ProcedureTyped> = useKit<ProcedureTyped>({
    start: { id: crypto.randomUUID(), step: 0, values: {}, note: "" },
    draft: `${poolId}.care.${procedure.key}`,
    // Enter in a step's field goes on to the next step; only the last page is sent.
    send: async (typed, own) =>
      typed.step < procedure.steps.length ? own.setValue("step", typed.step + 1) : keep(typed),
  });
  const { form } = kit;
  const at = form.watch("step");
  const to = (step: number) => form.setValue("step", step);
  const step = procedure.steps[at];

  async function keep({ id, values, note }: ProcedureTyped) {
    const found = await postOrKeep(
      "/api/v1/pools/{pool_id}/procedures/{key}/finish",
      { path: { pool_id: poolId, key: procedure.key }, query: { metric: units === "metric" } },
      { id, person_id: personId(), values, note },
      procedure.title,
    );
    kit.forget();
    await queries.invalidateQueries({ queryKey: ["pool", poolId] });
    notify(
      found === SAVED
        ? "Kept on this device; it is sent when the server answers."
        : [`${procedure.title}: in the journal.`, found.water_text, ...found.next_dates]
            .filter(Boolean)
            .join(" "),
    );
    void navigate(`/pools/${poolId}/care`);
  }

  return (
    <Box maxW="40rem">
      <Flex justify="space-between" align="baseline" gap="3" wrap="wrap">
        <Heading as="h2" fontSize="title">
          {procedure.title}
        </Heading>
        <Text color="soft" fontSize="note">
          {step ? `Step ${at + 1} of ${procedure.steps.length}` : "All steps done"}
        </Text>
      </Flex>
      <Flex gap="1" my="3" aria-hidden="true">
        {procedure.steps.map((one, index) => (
          <Box
            key={one.text}
            flex="1"
            h="6px"
            borderRadius="3px"
            bg={index === at ? "accent" : index < at ? "ink" : "hairline"}
          />
        ))}
      </Flex>
      {at === 0 && procedure.materials.length > 0 && (
        <Text mb="3">
          <Text as="span" fontWeight="700">
            At hand:
          </Text>{" "}
          {procedure.materials.join("; ")}.
        </Text>
      )}
      <KitForm kit={kit}>
        {step ? (
          <StepCard
            key={at}
            step={step}
            onTime={(name, seconds) => form.setValue(`values.${name}`, String(seconds))}
            extra={
              step.hazard === "cell_acid" && step.text.startsWith("Only now") ? (
                <AcidHelper units={units} />
              ) : null
            }
            onBack={at > 0 ? () => to(at - 1) : null}
            onNext={() => to(at + 1)}
            onToTheEnd={() => to(procedure.steps.length)}
          />
        ) : (
          <Finish procedure={procedure} poolId={poolId} onBack={() => to(procedure.steps.length - 1)} />
        )}
      </KitForm>
      <Box mt="4">
        <PlainLink to={`/pools/${poolId}/care`}>Leave it for now</PlainLink>{" "}
        <Text as="span" color="soft" fontSize="note">
          What is typed stays on this device.
        </Text>{" "}
        <PaperLink poolId={poolId} kind="procedure" of={{ key: procedure.key }}>
          On paper
        </PaperLink>
      </Box>
    </Box>
  );
}

/** What was taken in, once more, and into the journal with it. */
function Finish({ procedure, poolId, onBack }: { procedure: Procedure; poolId: string; onBack: () => void }) {
  const busy = useSaving();
  const asks: Ask[] = [...procedure.steps.flatMap((step) => step.asks), ...procedure.asks_at_end];
  return (
    <Card>
      {asks.map((ask) => (
        <Box key={ask.name} mb="3">
          <AskField ask={ask} />
        </Box>
      ))}
      <Field name="note" label="Note" />
      <Box mt="3">
        <TakePhoto poolId={poolId} shows="care" about={procedure.key} />
      </Box>
      <FormProblem shown={asks.filter(({ choices }) => choices.length === 0).map(({ name }) => name)} />
      <MainButton type="submit" mt="4" w="100%" minH="64px" disabled={busy}>
        {busy ? "Saving …" : "Done, into the journal"}
      </MainButton>
      <SideButton mt="3" w="100%" onClick={onBack}>
        Back to the last step
      </SideButton>
    </Card>
  );
}
