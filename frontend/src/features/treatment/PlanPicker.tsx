import { Box, Flex } from "@chakra-ui/react";
import type { PlanRequest } from "../../api/types";
import { PickOne } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import { BORATE, HURRY, INCIDENTS, LOWERED, PLANS, REASONS, STRATEGIES } from "./plans";

interface PlanPickerProps {
  asked: PlanRequest;
  change: (asked: PlanRequest) => void;
}

/** Which plan, and the one or two questions that it asks. */
export function PlanPicker({ asked, change }: PlanPickerProps) {
  const set = (part: PlanRequest) => change({ ...asked, ...part });
  const plan = asked.plan ?? "balance";
  return (
    <Flex gap="5" wrap="wrap" mb="4" align="end" data-noprint>
      <Box minW="15rem">
        <SelectField
          label="Plan"
          options={PLANS}
          value={plan}
          onPick={(value) => change({ plan: PLANS.find((option) => option.value === value)?.value ?? plan })}
        />
      </Box>
      {plan === "shock" && (
        <>
          <PickOne
            label="How"
            options={STRATEGIES}
            value={asked.shock ?? null}
            onPick={(shock) => set({ shock })}
          />
          <Box minW="14rem">
            <SelectField
              label="Why"
              options={REASONS}
              value={asked.reason ?? "routine"}
              onPick={(value) => set({ reason: REASONS.find((o) => o.value === value)?.value ?? "routine" })}
            />
          </Box>
        </>
      )}
      {plan === "incident" && (
        <PickOne
          label="What"
          options={INCIDENTS}
          value={asked.incident ?? "formed_stool"}
          onPick={(incident) => set({ incident })}
        />
      )}
      {plan === "lower_chlorine" && (
        <PickOne
          label="How soon"
          options={HURRY}
          value={asked.today ? "today" : "sun"}
          onPick={(value) => set({ today: value === "today" })}
        />
      )}
      {plan === "borate" && (
        <PickOne
          label="With"
          options={BORATE}
          value={asked.borate ?? "boric_acid"}
          onPick={(borate) => set({ borate })}
        />
      )}
      {plan === "drain" && <DrainFields asked={asked} set={set} />}
    </Flex>
  );
}

function DrainFields({ asked, set }: { asked: PlanRequest; set: (part: PlanRequest) => void }) {
  return (
    <>
      <PickOne
        label="To lower"
        options={LOWERED}
        value={LOWERED.find(({ value }) => value === asked.measure)?.value ?? "most"}
        onPick={(value) => set({ measure: value === "most" ? null : value, wanted: null })}
      />
      {asked.measure && (
        <Box w="7rem">
          <TextField
            label="To, ppm"
            inputMode="decimal"
            placeholder="the aim"
            value={asked.wanted === null || asked.wanted === undefined ? "" : String(asked.wanted)}
            onText={(text) => set({ wanted: text.trim() === "" ? null : text })}
          />
        </Box>
      )}
    </>
  );
}
