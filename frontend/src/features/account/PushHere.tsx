import { Flex, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { client, take } from "../../api/client";
import { type PushDevices, pushQuery } from "../../api/outgoing";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Failed } from "../../components/States";
import { canBePushed, nameOfThis, pushedTo, pushHere, stopHere } from "../../lib/push";
import { Part } from "./AccountPage";

/** Devices that messages come to; the one in the hand is let in or out here. */
export function PushHere() {
  const found = useQuery(pushQuery());
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  return found.data ? <Devices found={found.data} /> : null;
}

function Devices({ found: { key, devices } }: { found: PushDevices }) {
  const queries = useQueryClient();
  const [here, setHere] = useState<string | null>(null);
  useEffect(() => {
    void pushedTo().then(setHere);
  }, []);
  const mine = devices.find(({ endpoint }) => endpoint === here);

  const anew = () => queries.invalidateQueries({ queryKey: ["push"] });
  const begin = () =>
    attempt(async () => {
      const at = await pushHere(key);
      await take(client.POST("/api/v1/me/push", { body: { name: nameOfThis(), ...at } }));
      setHere(at.endpoint);
      await anew();
    });
  const end = (device_id: string, own: boolean) =>
    attempt(async () => {
      await take(client.POST("/api/v1/me/push/{device_id}/end", { params: { path: { device_id } } }));
      if (own) await stopHere();
      await anew();
    });

  return (
    <Part title="On this device">
      <Text mb="3">
        A step of a plan whose wait is over, a pool that is open again, what is due today: as chosen under
        Messages, also while Kumpan is closed.
      </Text>
      {devices.map((one) => (
        <Flex key={one.id} justify="space-between" align="center" gap="3" py="1">
          <Text>
            {one.name}
            {one === mine && " (this one)"}
          </Text>
          <SideButton
            aria-label={`No more messages to ${one.name}`}
            onClick={() => void end(one.id, one === mine)}
          >
            End
          </SideButton>
        </Flex>
      ))}
      {mine === undefined &&
        (canBePushed() ? (
          <SideButton onClick={() => void begin()}>Let messages come here</SideButton>
        ) : (
          <Text fontSize="note" color="soft">
            This browser takes no messages. On an iPhone or iPad add Kumpan to the home screen first; else use
            mail or the calendar.
          </Text>
        ))}
    </Part>
  );
}
