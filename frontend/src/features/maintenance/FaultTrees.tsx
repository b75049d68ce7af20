import { Grid, Text } from "@chakra-ui/react";
import { useState } from "react";
import type { EquipmentView } from "../../api/types";
import { SideButton } from "../../components/Button";
import { InterviewCard } from "./InterviewCard";

type Trees = EquipmentView["trees"];

/** What may be wrong with one piece of equipment; each is looked into question by question. */
export function FaultTrees({
  trees,
  poolId,
  begin,
}: {
  trees: Trees;
  poolId: string;
  begin?: string | null;
}) {
  const [picked, setPicked] = useState<string | null>(null);
  const tree = picked ?? begin ?? null;
  return (
    <>
      <Text mt="4" fontWeight="700">
        Something wrong?
      </Text>
      <Grid gap="2" mt="2" templateColumns={{ base: "1fr", sm: "1fr 1fr" }}>
        {trees.map((one) => (
          <SideButton
            key={one.key}
            h="auto"
            py="2"
            whiteSpace="normal"
            aria-pressed={tree === one.key}
            onClick={() => setPicked(tree === one.key ? "" : one.key)}
          >
            {one.title}
          </SideButton>
        ))}
      </Grid>
      {tree !== null && tree !== "" && <InterviewCard key={tree} tree={tree} poolId={poolId} />}
    </>
  );
}
