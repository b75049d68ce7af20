import { Flex, Link, Text } from "@chakra-ui/react";
import { PaperLink } from "../../components/PaperLink";
import { useMe } from "../../lib/me";
import type { Units } from "../../lib/units";

/** This pool's journal and tables, out: for a spreadsheet, or for any other program. */
export function LogFiles({ poolId, units }: { poolId: string; units: Units }) {
  const me = useMe();
  if (me === null || me.role === "guest") return null;
  const of = `?pool_id=${poolId}${units === "metric" ? "&metric=true" : ""}`;
  const files = [
    { href: `/api/v1/exports/tests.xlsx${of}`, label: "tests" },
    { href: `/api/v1/exports/additions.xlsx${of}`, label: "what was added" },
    { href: `/api/v1/exports/care.xlsx${of}`, label: "care" },
    { href: `/api/v1/pools/${poolId}/journal.jsonl`, label: "the whole journal" },
  ];
  return (
    <Flex gap="4" wrap="wrap" align="center" mt="4" data-noprint>
      <Text color="soft">Download</Text>
      {files.map(({ href, label }) => (
        <Link
          key={label}
          href={href}
          download
          color="ink"
          textDecoration="underline"
          minH="44px"
          display="inline-flex"
          alignItems="center"
        >
          {label}
        </Link>
      ))}
      <PaperLink poolId={poolId} kind="season">
        a season on paper (PDF)
      </PaperLink>
      <PaperLink poolId={poolId} kind="water-log">
        the water log (PDF)
      </PaperLink>
    </Flex>
  );
}
