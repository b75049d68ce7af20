import { Box, Flex, Grid, Heading, Link, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { membersQuery } from "../../api/accountQueries";
import { poolsQuery } from "../../api/queries";
import { Card } from "../../components/Card";
import { SelectField } from "../../components/SelectField";
import { TextField } from "../../components/TextField";
import { useStore } from "../../lib/store";
import { unitsStore } from "../../lib/units";

const TABLES = [
  { what: "tests", label: "Tests and looks" },
  { what: "additions", label: "What was added" },
  { what: "care", label: "Care done" },
  { what: "costs", label: "Costs" },
] as const;
const ALL = { value: "", label: "All pools" };

/** Tables of all pools, of one, or of a technician's rounds, between two days; and all of it as one file. */
export function TakeOut() {
  const metric = useStore(unitsStore) === "metric";
  const members = useQuery(membersQuery());
  const pools = useQuery(poolsQuery());
  const [of, setOf] = useState("");
  const [first, setFirst] = useState("");
  const [last, setLast] = useState("");
  const rounds = members.data?.filter(({ role, ended_at }) => role === "technician" && ended_at === null);
  const options = [
    ALL,
    ...(rounds ?? []).map(({ id, name }) => ({ value: `technician_id=${id}`, label: `${name}’s rounds` })),
    ...(pools.data?.pools ?? []).map(({ id, settings }) => ({
      value: `pool_id=${id}`,
      label: settings.name,
    })),
  ];
  const wanted = [of, metric && "metric=true", first && `first=${first}`, last && `last=${last}`];
  const asked = wanted.filter(Boolean).join("&");
  const query = asked === "" ? "" : `?${asked}`;
  return (
    <Card as="section" aria-label="Take out">
      <Heading as="h2" fontSize="lead" mb="2">
        Take out
      </Heading>
      <Grid gap="3" templateColumns="1fr 1fr" mb="3">
        <Box gridColumn="1 / -1">
          <SelectField label="Of" value={of} options={options} onPick={setOf} />
        </Box>
        <TextField label="From" type="date" value={first} onText={setFirst} />
        <TextField label="To" type="date" value={last} onText={setLast} />
      </Grid>
      <Box as="ul" listStyleType="none" p="0" mb="4">
        {TABLES.map(({ what, label }) => (
          <Flex as="li" key={what} py="1" borderTop="1px solid" borderColor="hairline" align="center" gap="2">
            <Text flex="1">{label}</Text>
            {(["csv", "xlsx"] as const).map((ending) => (
              <Download
                key={ending}
                href={`/api/v1/exports/${what}.${ending}${query}`}
                label={`${label} as ${ending.toUpperCase()}`}
              >
                {ending.toUpperCase()}
              </Download>
            ))}
          </Flex>
        ))}
      </Box>
      <Text mb="2" ml="-2">
        <Download href="/api/v1/workspace/archive.zip" label="The whole workspace">
          The whole workspace
        </Download>
      </Text>
      <Text fontSize="note" color="soft">
        Pools, journals, people and shelf in one file of open formats: it comes in again here, or anywhere
        Kumpan runs. Each pool’s own tables and journal are under its log.
      </Text>
    </Card>
  );
}

function Download({ href, label, children }: { href: string; label: string; children: string }) {
  return (
    <Link
      href={href}
      download
      aria-label={label}
      color="ink"
      textDecoration="underline"
      minH="44px"
      minW="44px"
      px="2"
      display="inline-flex"
      alignItems="center"
    >
      {children}
    </Link>
  );
}
