import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useFormContext, useWatch } from "react-hook-form";
import type { FixtureIn } from "../../api/types";
import { SideButton } from "../../components/Button";
import type { PoolForm } from "./form";

const Slider = chakra("input", {
  base: { flex: "1", minW: "6rem", minH: "44px", accentColor: "{colors.rope}" },
});
const STEP = 0.02;

/** Skimmer and returns, moved along the edge by slider or by − and +. */
export function Fixtures() {
  const { setValue } = useFormContext<PoolForm>();
  const fixtures = useWatch<PoolForm, "fixtures">({ name: "fixtures" });
  const set = (next: FixtureIn[]) => setValue("fixtures", next);
  const move = (index: number, along: number) =>
    set(fixtures.map((old, i) => (i === index ? { ...old, along: (along + 1) % 1 } : old)));
  const add = (kind: FixtureIn["kind"]) => set([...fixtures, { kind, along: 0.4 }]);
  const remove = (index: number) => set(fixtures.filter((_, i) => i !== index));
  return (
    <Box mt="4">
      <Text fontSize="note" color="soft" mb="1">
        Move skimmer and returns along the edge
      </Text>
      {fixtures.map((fixture, index) =>
        fixture.kind === "drain" ? null : (
          <Flex key={index} align="center" gap="2" mb="2" wrap="wrap">
            <Text w="4.5rem" fontSize="note">
              {fixture.kind}
            </Text>
            <SideButton
              px="3"
              aria-label={`Move ${fixture.kind} back`}
              onClick={() => move(index, fixture.along - STEP)}
            >
              −
            </SideButton>
            <Slider
              type="range"
              min="0"
              max="0.99"
              step="0.01"
              aria-label={`Place of the ${fixture.kind} along the edge`}
              value={fixture.along}
              onChange={(event) => move(index, Number(event.target.value))}
            />
            <SideButton
              px="3"
              aria-label={`Move ${fixture.kind} on`}
              onClick={() => move(index, fixture.along + STEP)}
            >
              +
            </SideButton>
            <SideButton px="3" aria-label={`Remove this ${fixture.kind}`} onClick={() => remove(index)}>
              ×
            </SideButton>
          </Flex>
        ),
      )}
      <Flex gap="2" wrap="wrap">
        <SideButton onClick={() => add("skimmer")}>Add a skimmer</SideButton>
        <SideButton onClick={() => add("return")}>Add a return</SideButton>
      </Flex>
    </Box>
  );
}
