import { Flex, Grid, Heading, Link, Text } from "@chakra-ui/react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { archivedQuery, journalCopiesQuery } from "../../api/accountQueries";
import { client, take } from "../../api/client";
import type { ArchivedPool } from "../../api/types";
import { attempt } from "../../components/attempt";
import { SideButton } from "../../components/Button";
import { Card } from "../../components/Card";
import { notify } from "../../components/notice";
import { saveFile } from "../../lib/saveFile";
import { dayName } from "../../lib/times";

const ZONE = Intl.DateTimeFormat().resolvedOptions().timeZone;

/** The office's pools out of the lists, and journals kept of pools that one works on no longer. */
export function PutAway() {
  const archived = useQuery(archivedQuery());
  const kept = useQuery(journalCopiesQuery());
  const journals = kept.data ?? [];
  if (!archived.data?.length && journals.length === 0) return null;
  return (
    <Card as="section" aria-label="Put away" mt="6">
      <Heading as="h2" fontSize="lead" mb="3">
        Put away
      </Heading>
      <Grid gap="4">
        {archived.data?.map((pool) => (
          <Archived key={pool.id} pool={pool} />
        ))}
        {journals.map(({ id, name, at }) => (
          <Text key={id}>
            {name}: the journal as it stood when the sharing ended, {dayName(at, ZONE)}.{" "}
            <Link
              href={`/api/v1/journal-copies/${id}.jsonl`}
              download={`${name}.jsonl`}
              textDecoration="underline"
            >
              Download it
            </Link>
          </Text>
        ))}
      </Grid>
    </Card>
  );
}

/** Deleting asks for the download first: the server deletes only what this file holds. */
function Archived({ pool: { id, name, archived_at, own } }: { pool: ArchivedPool }) {
  const queries = useQueryClient();
  const [digest, setDigest] = useState<string | null>(null);
  const params = { path: { pool_id: id } };
  const back = () =>
    attempt(async () => {
      await take(client.POST("/api/v1/pools/{pool_id}/archive", { params, body: { back: true } }));
      await queries.invalidateQueries();
    });
  const download = () =>
    attempt(async () => {
      const { data, response } = await client.GET("/api/v1/pools/{pool_id}/journal.jsonl", {
        params,
        parseAs: "blob",
      });
      if (!response.ok) throw new Error("The journal could not be read; try once more.");
      saveFile(data as Blob, `${name}.jsonl`);
      setDigest(response.headers.get("x-journal-sha256"));
    });
  const remove = () =>
    attempt(async () => {
      const body = { sha256: digest ?? "" };
      await take(client.POST("/api/v1/pools/{pool_id}/delete", { params, body }));
      notify(`${name} is deleted. Your download is what remains of it.`);
      await queries.invalidateQueries();
    });
  return (
    <div>
      <Flex gap="3" wrap="wrap" align="center">
        <Text flex="1" minW="12rem">
          {name}, archived {dayName(archived_at, ZONE)}
        </Text>
        {own && <SideButton onClick={() => void back()}>Bring back</SideButton>}
        <SideButton onClick={() => void download()}>Download the journal</SideButton>
      </Flex>
      {own && digest !== null && (
        <Flex gap="3" mt="2" wrap="wrap" align="center" role="status">
          <Text flex="1" minW="12rem">
            The journal is downloaded. Deleting takes the pool, its journal and its photos away for good;
            nobody brings them back.
          </Text>
          <SideButton onClick={() => void remove()}>Delete {name} for good</SideButton>
        </Flex>
      )}
    </div>
  );
}
