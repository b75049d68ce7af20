import { Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { linksQuery } from "../api/accountQueries";
import { client, take } from "../api/client";
import type { PoolLink } from "../api/types";
import { dayName } from "../lib/times";
import { attempt } from "./attempt";
import { SideButton } from "./Button";
import { Card } from "./Card";
import { ShownOnce } from "./ShownOnce";

const WORDS: Record<PoolLink["kind"], { title: string; what: string; make: string }> = {
  guest: {
    title: "Guests",
    what: "With a guest link anybody reads this pool: Today, the plan, the report and the notice. Nothing can be changed.",
    make: "Make a guest link",
  },
  feed: {
    title: "In your own calendar",
    what: "A calendar program follows this link, with an alarm at nine on each day. Whoever has it reads what is due.",
    make: "Make a calendar link",
  },
};

interface PoolLinksProps {
  poolId: string;
  zone: string;
  kind: PoolLink["kind"];
}

/** Links of one kind that let somebody in without an account, each taken back by one tap. */
export function PoolLinks({ poolId, zone, kind }: PoolLinksProps) {
  const queries = useQueryClient();
  const links = useQuery(linksQuery());
  const [made, setMade] = useState<string | null>(null);
  const open = links.data?.filter((link) => link.pool_id === poolId && link.kind === kind) ?? [];
  const { title, what, make } = WORDS[kind];

  const create = () =>
    attempt(async () => {
      const path = { params: { path: { pool_id: poolId } } };
      const link = await take(
        client.POST("/api/v1/pools/{pool_id}/links", { ...path, body: { kind, name: "" } }),
      );
      setMade(window.location.origin + link.path);
      await queries.invalidateQueries({ queryKey: ["links"] });
    });
  const end = (link_id: string) =>
    attempt(async () => {
      await take(client.POST("/api/v1/links/{link_id}/end", { params: { path: { link_id } } }));
      setMade(null);
      await queries.invalidateQueries({ queryKey: ["links"] });
    });

  return (
    <Card as="section" aria-label={title} mt="4" data-noprint>
      <Heading as="h2" fontSize="lead" mb="2">
        {title}
      </Heading>
      <Text mb="3">{what}</Text>
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
        <ShownOnce say="Pass this on; it is not shown again:" secret={made} testId={`${kind}-link`} />
      )}
      <SideButton onClick={() => void create()}>{make}</SideButton>
    </Card>
  );
}
