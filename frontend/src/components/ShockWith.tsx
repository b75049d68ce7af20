import { Box, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { shockProductsQuery } from "../api/shock";
import { SelectField } from "./SelectField";

interface ShockWithProps {
  poolId: string;
  use: string | null;
  onPick: (use: string | null) => void;
}

/** The person's own choice of what to shock with; the planner's until then. */
export function ShockWith({ poolId, use, onPick }: ShockWithProps) {
  const found = useQuery(shockProductsQuery(poolId));
  const products = found.data ?? [];
  const elsewhere = use !== null && found.data !== undefined && !products.some(({ id }) => id === use);
  if (products.length < 2 && !elsewhere) return null;
  const whyNot = products.find(({ id }) => id === use)?.why_not;
  return (
    <Box minW="13rem" maxW="22rem">
      <SelectField
        label="With"
        options={[
          { value: "", label: "What suits best" },
          ...(elsewhere && use !== null ? [{ value: use, label: "What does not stand here now" }] : []),
          ...products.map(({ id, label, why_not }) => ({
            value: id,
            label: why_not === null ? label : `${label} (not here)`,
          })),
        ]}
        value={use ?? ""}
        onPick={(picked) => onPick(picked === "" ? null : picked)}
      />
      {whyNot && (
        <Text fontSize="note" color="accent">
          {whyNot}
        </Text>
      )}
    </Box>
  );
}
