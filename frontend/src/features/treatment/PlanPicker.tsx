import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { inventoryQuery } from "../../api/queries";
import type { PlanRequest } from "../../api/types";
import { PickOne } from "../../components/Pick";
import { SelectField } from "../../components/SelectField";
import { ShockWith } from "../../components/ShockWith";
import { TextField } from "../../components/TextField";
import { PlainLink } from "../../components/TextLink";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";
import { BORATE, HURRY, INCIDENTS, LOWERED, PLANS, REASONS, STRATEGIES, WHICH_DOSE } from "./plans";

interface PlanPickerProps {
  poolId: string;
  asked: PlanRequest;
  change: (asked: PlanRequest) => void;
}

/** Which plan, and the one or two questions that it asks. */
export function PlanPicker({ poolId, asked, change }: PlanPickerProps) {
  const set = (part: PlanRequest) => change({ ...asked, ...part });
  const plan = asked.plan ?? "balance";
  return (
    <Flex columnGap={{ base: "3", md: "5" }} rowGap="3" wrap="wrap" mb="3" align="end" data-noprint>
      <Box flex={{ base: "1", md: "0 1 15rem" }} minW="11rem">
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
          {asked.shock !== "oxidiser" && (
            <ShockWith poolId={poolId} use={asked.use ?? null} onPick={(use) => set({ use })} />
          )}
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
      {plan === "balance" && (
        <PlainLink to={`/pools/${poolId}/week`} minH="44px" display="inline-flex" alignItems="center">
          How much a week?
        </PlainLink>
      )}
      {plan === "label_dose" && <LabelFields asked={asked} set={set} />}
      {plan === "drain" && <DrainFields asked={asked} set={set} />}
    </Flex>
  );
}

/** Which product of the shelf, and whether it is the first time. */
function LabelFields({ asked, set }: { asked: PlanRequest; set: (part: PlanRequest) => void }) {
  const shelf = useQuery(inventoryQuery(useStore(unitsStore)));
  const products = (shelf.data ?? []).filter(({ by_label }) => by_label);
  const first = products[0];
  useEffect(() => {
    if (first && !asked.use) set({ use: first.id });
  });
  if (shelf.data && !first) {
    return (
      <Text alignSelf="center">
        No such product on the shelf yet: <PlainLink to="/shelf">add it with what its label says</PlainLink>.
      </Text>
    );
  }
  return (
    <>
      <Box minW="14rem">
        <SelectField
          label="Product"
          options={products.map(({ id, label }) => ({ value: id, label }))}
          value={asked.use ?? ""}
          onPick={(use) => set({ use })}
        />
      </Box>
      <PickOne
        label="Dose"
        options={WHICH_DOSE}
        value={asked.upkeep ? "upkeep" : "first"}
        onPick={(value) => set({ upkeep: value === "upkeep" })}
      />
    </>
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
