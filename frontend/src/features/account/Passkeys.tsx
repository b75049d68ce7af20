import { Flex, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { authQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import type { Account } from "../../api/types";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { notify } from "../../components/notice";
import { canPasskey, makePasskey } from "../../lib/passkey";
import { whenText } from "../../lib/times";
import { Part } from "./AccountPage";

/** Devices that sign in by their own lock: no password, no code. */
export function Passkeys({ passkeys }: { passkeys: Account["passkeys"] }) {
  const queries = useQueryClient();
  const offered = useQuery(authQuery()).data?.passkeys === true && canPasskey();
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  if (!offered && passkeys.length === 0) return null;
  const renew = () => queries.invalidateQueries({ queryKey: ["me"] });
  const add = () =>
    attempt(async () => {
      const { options } = await take(client.POST("/api/v1/me/passkeys/offer"));
      const credential = await makePasskey(options);
      await take(client.POST("/api/v1/me/passkeys", { body: { credential, name: deviceName() } }));
      await renew();
      notify("This device signs you in from now on.");
    });
  const end = (passkey_id: string) =>
    attempt(async () => {
      await take(client.POST("/api/v1/me/passkeys/{passkey_id}/end", { params: { path: { passkey_id } } }));
      await renew();
    });
  return (
    <Part title="Passkeys">
      <Text mb="3">
        A device signs you in by its own lock: a finger, a face or a code. No password is typed.
      </Text>
      {passkeys.map(({ id, name, created_at, used_at }) => (
        <Flex key={id} justify="space-between" align="center" gap="3" py="1">
          <Text>
            {name}, {used_at === null ? "made" : "last used"}{" "}
            {whenText(used_at ?? created_at, zone, new Date())}
          </Text>
          <SideButton onClick={() => void end(id)}>Remove</SideButton>
        </Flex>
      ))}
      {offered && <SideButton onClick={() => void add()}>Add this device</SideButton>}
    </Part>
  );
}

function deviceName(): string {
  return /mobile/i.test(navigator.userAgent) ? "a phone" : "a computer";
}
