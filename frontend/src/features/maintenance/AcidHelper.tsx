import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { acidBathQuery } from "../../api/queries";
import { PickOne } from "../../components/Pick";
import { TextField } from "../../components/TextField";
import { liquidText } from "../../lib/plant";
import type { Units } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";

/** Water and acid for the container at hand, true to the strength of the acid on its label. */
export function AcidHelper({ units }: { units: Units }) {
  const [container, setContainer] = useState("");
  const [strength, setStrength] = useState("31.45");
  const [ratio, setRatio] = useState<"4" | "5">("5");
  const asked = useDebounced({ container, strength }, 250);
  const bath = useQuery(acidBathQuery(asked.container, asked.strength, Number(ratio), units));
  return (
    <Box borderLeft="3px solid" borderColor="rope" pl="4" mb="4">
      <Text fontWeight="700" mb="2">
        Mixing helper
      </Text>
      <Flex gap="3" wrap="wrap">
        <Box w="9rem">
          <TextField
            label="The container holds"
            placeholder={units === "us" ? "2 qt" : "2 L"}
            value={container}
            onText={setContainer}
          />
        </Box>
        <Box w="9rem">
          <TextField label="Acid on its label, %" inputMode="decimal" value={strength} onText={setStrength} />
        </Box>
        <PickOne
          label="By the cell's manual"
          options={[
            { value: "5", label: "5 to 1, gentler" },
            { value: "4", label: "4 to 1" },
          ]}
          value={ratio}
          onPick={setRatio}
        />
      </Flex>
      {bath.data && (
        <Text mt="3" fontSize="lead" fontWeight="700">
          First {liquidText(bath.data.water_ml, units)} of water, then {liquidText(bath.data.acid_ml, units)}{" "}
          of acid: {bath.data.strength_percent.toFixed(1)} %.
        </Text>
      )}
      {bath.isError && (
        <Text role="alert" mt="3" color="accent" fontWeight="600">
          {bath.error.message}
        </Text>
      )}
    </Box>
  );
}
