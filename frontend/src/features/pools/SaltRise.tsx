import { Box, Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import { useFormContext, useWatch } from "react-hook-form";
import { client, take } from "../../api/client";
import { SideButton } from "../../components/Button";
import { fieldsOf, troubleOf } from "../../forms/kit";
import { type Units, volumeText } from "../../lib/units";
import type { PoolForm } from "./form";

const { Amount } = fieldsOf<PoolForm>();

/** A weighed bag of salt tells the volume a day later; until then the pool is set up without one. */
export function SaltRise({ units, steps }: { units: Units; steps: readonly string[] }) {
  const { setValue } = useFormContext<PoolForm>();
  const [before, added, after, kit] = useWatch<PoolForm, ["saltBefore", "saltAdded", "saltAfter", "kit"]>({
    name: ["saltBefore", "saltAdded", "saltAfter", "kit"],
  });
  const [says, setSays] = useState<string | null>(null);
  const [refused, setRefused] = useState<{ field: string | null; message: string } | null>(null);
  const ask = async () => {
    setRefused(null);
    try {
      const found = await take(
        client.POST("/api/v1/basins/from-salt", {
          body: { before, added, after, kit, mass_unit: units === "us" ? "lb" : "kg" },
        }),
      );
      setValue("fromSalt", found, { shouldDirty: true });
      setSays(`${volumeText(found.volume_l, units)}. ${found.says}`);
    } catch (error) {
      const { field, message } = troubleOf(error);
      setValue("fromSalt", null);
      setSays(null);
      setRefused({ field, message });
    }
  };
  const changed = () => {
    setValue("fromSalt", null);
    setSays(null);
    setRefused(null);
  };
  const at = (field: string) => (refused?.field === field ? refused.message : null);
  const elsewhere = refused !== null && !["before", "added", "after"].includes(refused.field ?? "");
  return (
    <>
      <Box as="ol" pl="6" listStyleType="decimal">
        {steps.map((step) => (
          <Box as="li" key={step} mb="1">
            {step}
          </Box>
        ))}
      </Box>
      <Grid templateColumns={{ base: "1fr 1fr", md: "repeat(3, 1fr)" }} gap="4">
        <Amount name="saltBefore" label="Salt before, ppm" problem={at("before")} onTyped={changed} />
        <Amount
          name="saltAdded"
          label={units === "us" ? "Salt added, lb" : "Salt added, kg"}
          problem={at("added")}
          onTyped={changed}
        />
        <Amount name="saltAfter" label="Salt a day after, ppm" problem={at("after")} onTyped={changed} />
      </Grid>
      <SideButton justifySelf="start" onClick={() => void ask()}>
        Work out the volume
      </SideButton>
      <Box aria-live="polite">
        {says !== null && <Text fontWeight="650">{says}</Text>}
        {elsewhere && (
          <Text color="accent" fontWeight="600">
            {refused.message}
          </Text>
        )}
        {says === null && (
          <Text color="soft" fontSize="note">
            Not done yet? Go on without: until the volume is known, every amount is for each{" "}
            {units === "us" ? "1,000 gal" : "1000 L"}, and this page waits under Set-up.
          </Text>
        )}
      </Box>
    </>
  );
}
