import { Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { useNavigate, useParams } from "react-router";
import { client, take } from "../../api/client";
import { Card } from "../../components/Card";
import { Loading } from "../../components/States";

/** A guest link: it leads to the one pool that it opens. */
export function GuestPage() {
  const { secret = "" } = useParams();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const guest = useQuery({
    queryKey: ["guest", secret],
    queryFn: () => take(client.POST("/api/v1/auth/guest", { body: { secret } })),
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const pool = guest.data?.pool_id;
  useEffect(() => {
    if (!pool) return;
    // Who one is comes first: a page of the pool that still believes nobody is here would show the way in.
    // Reset, not only asked again: a first question that is still on its way was asked before the link opened.
    void queries
      .resetQueries({ queryKey: ["auth"] })
      .then(() => navigate(`/pools/${pool}`, { replace: true }));
  }, [pool, navigate, queries]);
  if (!guest.isError) return <Loading what="the pool" />;
  return (
    <Card maxW="28rem">
      <Text role="alert">{guest.error.message}</Text>
    </Card>
  );
}
