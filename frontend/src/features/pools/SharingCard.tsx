import { Flex, Grid, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { sharingQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { ShownOnce } from "../../components/ShownOnce";
import { dayName } from "../../lib/times";

/** Who else works on this pool: a firm and a household read one journal, and each writes its own in it. */
export function SharingCard({ poolId, zone }: { poolId: string; zone: string }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const sharing = useQuery(sharingQuery(poolId));
  const [made, setMade] = useState<string | null>(null);
  const [ending, setEnding] = useState<string | null>(null);
  if (!sharing.data) return null;
  const { home, own, shares, offers } = sharing.data;
  const pool_id = poolId;
  const renew = () => queries.invalidateQueries({ queryKey: ["sharing", poolId] });

  const offer = () =>
    attempt(async () => {
      const link = await take(
        client.POST("/api/v1/pools/{pool_id}/shares", { params: { path: { pool_id } } }),
      );
      setMade(window.location.origin + link.path);
      await renew();
    });
  const takeBack = (offer_id: string) =>
    attempt(async () => {
      const params = { path: { pool_id, offer_id } };
      await take(client.POST("/api/v1/pools/{pool_id}/offers/{offer_id}/end", { params }));
      setMade(null);
      await renew();
    });
  const end = (share_id: string, leaves: boolean) =>
    attempt(async () => {
      const params = { path: { pool_id, share_id } };
      await take(client.POST("/api/v1/pools/{pool_id}/shares/{share_id}/end", { params }));
      setEnding(null);
      if (!leaves) return renew();
      await queries.resetQueries();
      notify("You left this pool. A copy of its journal stands under the pools.");
      await navigate("/");
    });

  return (
    <Card as="section" aria-label="Sharing" mt="4" data-noprint>
      <Heading as="h2" fontSize="lead" mb="2">
        Sharing
      </Heading>
      <Text mb="3">
        {own
          ? "A firm and a household can work on one pool: both read one journal, each entry says whose it is, and each corrects its own. Costs and internal notes stay with those who wrote them."
          : `This pool is shared with you; ${home} decides about it.`}
      </Text>
      {shares.map(({ id, workspace, since, leaves }) => (
        <Grid key={id} gap="2" py="1">
          <Flex justify="space-between" align="center" gap="3" wrap="wrap">
            <Text>
              {leaves ? `You, with ${home}` : `With ${workspace}`}, since {dayName(since, zone)}
            </Text>
            {(own || leaves) && ending !== id && (
              <SideButton onClick={() => setEnding(id)}>{leaves ? "Leave …" : "End …"}</SideButton>
            )}
          </Flex>
          {ending === id && (
            <div role="status">
              <Text mb="2">
                {home} keeps the pool and its whole journal; {leaves ? "you keep" : `${workspace} keeps`} a
                copy of the journal as it stands now. Neither reads what the other writes from then on.
              </Text>
              <Flex gap="3" wrap="wrap">
                <SideButton onClick={() => void end(id, leaves)}>Yes, end it</SideButton>
                <SideButton onClick={() => setEnding(null)}>No</SideButton>
              </Flex>
            </div>
          )}
        </Grid>
      ))}
      {offers.map(({ id, expires_at }) => (
        <Flex key={id} justify="space-between" align="center" gap="3" py="1" wrap="wrap">
          <Text>Offered, open until {dayName(expires_at, zone)}</Text>
          <SideButton onClick={() => void takeBack(id)}>Take back</SideButton>
        </Flex>
      ))}
      {made !== null && (
        <ShownOnce
          say="Pass this on to the other firm or household; it opens once:"
          secret={made}
          testId="share-link"
        />
      )}
      {own && <SideButton onClick={() => void offer()}>Share this pool</SideButton>}
    </Card>
  );
}
