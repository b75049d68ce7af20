import { Box, Flex, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { client, take } from "../../api/client";
import type { EquipmentView } from "../../api/types";
import { SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { personId } from "../../lib/person";

type Lamp = NonNullable<EquipmentView["cell"]>["lamps"][number];

/** What the unit's lamps show, read by eye; a lamp is a question, never an order to pour. */
export function Lamps({ lamps, poolId }: { lamps: readonly Lamp[]; poolId: string }) {
  const queries = useQueryClient();
  const [busy, setBusy] = useState(false);

  async function toggle(lamp: Lamp) {
    setBusy(true);
    const lit = lamps.filter((one) => (one.key === lamp.key ? !one.lit : one.lit)).map(({ key }) => key);
    try {
      await take(
        client.POST("/api/v1/pools/{pool_id}/lamps", {
          params: { path: { pool_id: poolId } },
          body: { id: crypto.randomUUID(), at: null, person_id: personId(), lamps: lit },
        }),
      );
      await queries.invalidateQueries({ queryKey: ["pool", poolId] });
      notify(lamp.lit ? `Noted: “${lamp.name}” is dark.` : `Noted: “${lamp.name}” is lit.`);
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    } finally {
      setBusy(false);
    }
  }

  return (
    <Box mt="4">
      <Text fontWeight="700">Lamps of the unit</Text>
      <Text fontSize="note" color="soft">
        Press what is lit. A hand test goes before any of them.
      </Text>
      <Flex gap="2" mt="2" wrap="wrap">
        {lamps.map((lamp) => (
          <SideButton
            key={lamp.key}
            disabled={busy}
            aria-pressed={lamp.lit}
            onClick={() => void toggle(lamp)}
          >
            {lamp.lit ? `${lamp.name}: lit` : lamp.name}
          </SideButton>
        ))}
      </Flex>
    </Box>
  );
}
