import { Text } from "@chakra-ui/react";
import { useWatch } from "react-hook-form";
import type { Trouble } from "../../api/client";
import { fieldsOf } from "../../forms/kit";
import type { Units } from "../../lib/units";
import { Dimensions } from "./Dimensions";
import type { PoolForm } from "./form";
import { SaltRise } from "./SaltRise";

const { Amount, Choice } = fieldsOf<PoolForm>();

interface SizeProps {
  units: Units;
  /** What the server would not have of the size. */
  trouble: Trouble | null;
  /** How the volume is found with a bag of salt. */
  steps: readonly string[];
}

/** How large the pool is: by its dimensions, by what one knows, or by what a bag of salt tells. */
export function Size({ units, trouble, steps }: SizeProps) {
  const how = useWatch<PoolForm, "how">({ name: "how" });
  return (
    <>
      <Choice
        name="how"
        label="From"
        options={[
          { value: "dimensions", label: "Its dimensions" },
          { value: "typed", label: units === "us" ? "The gallons I know" : "The liters I know" },
          { value: "salt", label: "A bag of salt" },
          { value: "unknown", label: "Not known yet" },
        ]}
      />
      {how === "typed" && (
        <Amount
          name="volume"
          label={`Volume, ${units === "us" ? "gallons" : "liters"} unless you write the unit`}
          problem={trouble?.field === "volume" ? trouble.message : null}
        />
      )}
      {how === "salt" && <SaltRise units={units} steps={steps} />}
      {how === "unknown" && (
        <Text color="soft">
          Findings and swimming are judged as always. Every amount is for each{" "}
          {units === "us" ? "1,000 gal" : "1000 L"} of water, and no plan can be started until the volume is
          set.
        </Text>
      )}
      {(how === "dimensions" || how === "typed") && <Dimensions units={units} trouble={trouble} />}
    </>
  );
}
