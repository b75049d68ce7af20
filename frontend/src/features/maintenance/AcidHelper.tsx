import { Box, Flex, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { acidBathQuery } from "../../api/queries";
import { fieldsOf, KitPart, useKit } from "../../forms/kit";
import { liquidText } from "../../lib/plant";
import type { Units } from "../../lib/units";
import { useDebounced } from "../../lib/useDebounced";

interface Asked {
  container: string;
  strength: string;
  ratio: "4" | "5";
}
const { Field, Amount, Choice } = fieldsOf<Asked>();

/** Water and acid for the container at hand, true to the strength of the acid on its label. */
export function AcidHelper({ units }: { units: Units }) {
  // Nothing is sent: the mixture is told while one types.
  const kit = useKit<Asked>({
    start: { container: "", strength: "31.45", ratio: "5" },
    send: async () => undefined,
  });
  const { container, strength, ratio } = kit.form.watch();
  const asked = useDebounced({ container, strength }, 250);
  const bath = useQuery(acidBathQuery(asked.container, asked.strength, ratio, units));
  return (
    <Box borderLeft="3px solid" borderColor="rope" pl="4" mb="4">
      <Text fontWeight="700" mb="2">
        Mixing helper
      </Text>
      <KitPart kit={kit}>
        <Flex gap="3" wrap="wrap">
          <Box w="9rem">
            <Field
              name="container"
              label="The container holds"
              placeholder={units === "us" ? "2 qt" : "2 L"}
            />
          </Box>
          <Box w="9rem">
            <Amount name="strength" label="Acid on its label, %" />
          </Box>
          <Choice
            name="ratio"
            label="By the cell's manual"
            options={[
              { value: "5", label: "5 to 1, gentler" },
              { value: "4", label: "4 to 1" },
            ]}
          />
        </Flex>
      </KitPart>
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
