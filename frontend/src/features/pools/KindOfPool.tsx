import { Box, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import type { Choices } from "../../api/types";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { PickOne } from "../../components/Pick";

export type Preset = Choices["presets"][number];

interface KindOfPoolProps {
  presets: readonly Preset[];
  poolId: string | undefined;
  onPick: (preset: Preset) => void;
}

/** The first question: one tap fills in what such a pool usually is. At a pool that is set up, what it would change
 * is said before it is taken. */
export function KindOfPool({ presets, poolId, onPick }: KindOfPoolProps) {
  const [picked, setPicked] = useState<Preset | null>(null);
  const question = (
    <>
      <PickOne
        label="Kinds of pool"
        options={presets.map(({ key, name }) => ({ value: key, label: name }))}
        value={picked?.key ?? null}
        onPick={(key) => {
          const preset = presets.find((one) => one.key === key) ?? null;
          setPicked(preset);
          if (preset && poolId === undefined) onPick(preset);
        }}
      />
      {picked && (
        <Box mt="3">
          {picked.says.map((line) => (
            <Text key={line}>{line}</Text>
          ))}
          {picked.warns && (
            <Text color="accent" fontWeight="600">
              {picked.warns}
            </Text>
          )}
          {poolId !== undefined && (
            <WouldChange poolId={poolId} preset={picked} onTake={() => onPick(picked)} />
          )}
        </Box>
      )}
    </>
  );
  if (poolId !== undefined) {
    return (
      <Box as="details">
        <Box
          as="summary"
          cursor="pointer"
          minH="44px"
          display="flex"
          alignItems="center"
          color="rope"
          fontWeight="600"
        >
          Is it another kind of pool?
        </Box>
        {question}
      </Box>
    );
  }
  return (
    <Card as="section" aria-label="Kind of pool">
      <Heading as="h2" fontSize="lead" mb="3">
        What kind of pool?
      </Heading>
      {question}
    </Card>
  );
}

function WouldChange({ poolId, preset, onTake }: { poolId: string; preset: Preset; onTake: () => void }) {
  const changes = useQuery({
    queryKey: ["pool", poolId, "presets", preset.key],
    queryFn: () =>
      take(
        client.GET("/api/v1/pools/{pool_id}/presets/{key}", {
          params: { path: { pool_id: poolId, key: preset.key } },
        }),
      ),
  });
  if (!changes.data) return null;
  if (changes.data.length === 0) return <Text mt="2">This pool is set up as such a one.</Text>;
  return (
    <Box mt="2">
      <Text fontWeight="650">It would change here:</Text>
      <Box as="ul" pl="5">
        {changes.data.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
      <SideButton mt="2" onClick={onTake}>
        Fill that in below
      </SideButton>
    </Box>
  );
}
