import { Box, chakra, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import type { Choices, Measure, PoolHeaderData } from "../../api/types";
import { MainButton, SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";

interface KitOrderProps {
  head: PoolHeaderData;
  kit: string;
  usual: readonly Measure[];
  order: readonly Measure[];
  choices: Choices;
}

/** The fields in the order of the user's own kit: moved up and down, left out, or put in. Kept with the pool. */
export function KitOrder({ head, kit, usual, order, choices }: KitOrderProps) {
  const queries = useQueryClient();
  const [mine, setMine] = useState<readonly Measure[]>(order);
  const [problem, setProblem] = useState<string | null>(null);
  const nameOf = (measure: Measure) =>
    choices.measures.find((known) => known.key === measure)?.name ?? measure;
  const more = choices.measures
    .map((known) => known.key as Measure)
    .filter((measure) => measure !== "saturation_index" && measure !== "sulfate" && !mine.includes(measure));

  function move(index: number, by: 1 | -1) {
    const next = [...mine];
    const [taken] = next.splice(index, 1);
    if (taken !== undefined) next.splice(index + by, 0, taken);
    setMine(next);
  }

  async function keep(kit_order: readonly Measure[]) {
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/settings", {
          params: { path: { pool_id: head.id } },
          body: {
            id: crypto.randomUUID(),
            at: null,
            person_id: personId(),
            settings: { ...head.settings, kit, kit_order: [...kit_order] },
          },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", head.id] });
      notify("The test form follows your kit's order now.");
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  }

  return (
    <chakra.details mt="4">
      <chakra.summary minH="44px" display="flex" alignItems="center" cursor="pointer" fontWeight="600">
        Order of your own kit
      </chakra.summary>
      <Box as="ol" listStyleType="none" p="0" m="0" maxW="26rem">
        {mine.map((measure, index) => (
          <Flex as="li" key={measure} align="center" gap="2" mb="2">
            <Text flex="1">
              {index + 1}. {nameOf(measure)}
            </Text>
            <SideButton
              px="3"
              aria-label={`${nameOf(measure)} earlier`}
              disabled={index === 0}
              onClick={() => move(index, -1)}
            >
              ↑
            </SideButton>
            <SideButton
              px="3"
              aria-label={`${nameOf(measure)} later`}
              disabled={index === mine.length - 1}
              onClick={() => move(index, 1)}
            >
              ↓
            </SideButton>
            <SideButton
              px="3"
              aria-label={`Leave out ${nameOf(measure)}`}
              disabled={mine.length === 1}
              onClick={() => setMine(mine.filter((one) => one !== measure))}
            >
              ×
            </SideButton>
          </Flex>
        ))}
      </Box>
      <Flex gap="2" wrap="wrap" mb="3">
        {more.map((measure) => (
          <SideButton key={measure} onClick={() => setMine([...mine, measure])}>
            + {nameOf(measure)}
          </SideButton>
        ))}
      </Flex>
      {problem !== null && (
        <Text role="alert" color="accent" fontWeight="600" mb="3">
          {problem}
        </Text>
      )}
      <Flex gap="3" wrap="wrap">
        <MainButton onClick={() => void keep(mine)}>Keep this order</MainButton>
        <SideButton
          minH="52px"
          onClick={() => {
            setMine(usual);
            void keep([]);
          }}
        >
          Back to the usual box
        </SideButton>
      </Flex>
    </chakra.details>
  );
}
