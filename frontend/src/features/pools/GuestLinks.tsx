import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { guestLinksQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { dayName } from "../../lib/times";

/** Links with which anybody reads this pool without an account, each taken back by one tap. */
export function GuestLinks({ poolId, zone }: { poolId: string; zone: string }) {
  const queries = useQueryClient();
  const links = useQuery(guestLinksQuery());
  const [made, setMade] = useState<string | null>(null);
  const open = links.data?.filter((link) => link.pool_id === poolId && link.ended_at === null) ?? [];

  async function run(work: () => Promise<void>) {
    try {
      await work();
      await queries.invalidateQueries({ queryKey: ["guest-links"] });
    } catch (error) {
      notify(error instanceof Error ? error.message : String(error));
    }
  }
  const make = () =>
    run(async () => {
      const path = { params: { path: { pool_id: poolId } } };
      const link = await take(
        client.POST("/api/v1/pools/{pool_id}/guest-links", { ...path, body: { name: "" } }),
      );
      setMade(window.location.origin + link.path);
    });
  const end = (link_id: string) =>
    run(async () => {
      await take(client.POST("/api/v1/guest-links/{link_id}/end", { params: { path: { link_id } } }));
      setMade(null);
    });

  return (
    <Card as="section" aria-label="Guests" mt="4">
      <Heading as="h2" fontSize="lead" mb="2">
        Guests
      </Heading>
      <Text mb="3">
        With a guest link anybody reads this pool: Today, the sheet, the report and the notice. Nothing can be
        changed.
      </Text>
      {open.map((link) => (
        <Flex key={link.id} justify="space-between" align="center" gap="3" py="1">
          <Text>
            Made {dayName(link.created_at, zone)}
            {link.expires_at !== null && `, open until ${dayName(link.expires_at, zone)}`}
          </Text>
          <SideButton onClick={() => void end(link.id)}>Take back</SideButton>
        </Flex>
      ))}
      {made !== null && (
        <Box my="3" role="status">
          <Text>Pass this on; it is not shown again:</Text>
          <Text fontFamily="mono" overflowWrap="anywhere" data-testid="guest-link">
            {made}
          </Text>
        </Box>
      )}
      <SideButton onClick={() => void make()}>Make a guest link</SideButton>
    </Card>
  );
}
