import { Heading, Text } from "@chakra-ui/react";
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import { client, take } from "../../api/client";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";

/** Out of the lists, without losing a line: an archived pool is read and no longer written. */
export function ArchiveCard({ poolId, name }: { poolId: string; name: string }) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const archive = () =>
    attempt(async () => {
      const params = { path: { pool_id: poolId } };
      await take(client.POST("/api/v1/pools/{pool_id}/archive", { params, body: { back: false } }));
      await queries.invalidateQueries();
      notify(`${name} is archived. It stands under the pools, to be read or brought back.`);
      await navigate("/");
    });
  return (
    <Card as="section" aria-label="No longer cared for" mt="4" data-noprint>
      <Heading as="h2" fontSize="lead" mb="2">
        No longer cared for
      </Heading>
      <Text mb="3">
        An archived pool leaves the lists and the rounds. Its journal stays, can be read and downloaded, and
        the pool can be brought back.
      </Text>
      <SideButton onClick={() => void archive()}>Archive {name}</SideButton>
    </Card>
  );
}
