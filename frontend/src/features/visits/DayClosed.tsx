import { Box, Flex, Heading, Text } from "@chakra-ui/react";
import { useQuery } from "@tanstack/react-query";
import { dayClosedQuery } from "../../api/firm";
import { Card } from "../../components/Card";
import { Failed, Loading } from "../../components/States";
import { PlainLink } from "../../components/TextLink";
import type { Units } from "../../lib/units";

/** The day once it is driven: what left the truck, what each pool cost, and the report of each. */
export function DayClosed({ person, units }: { person: string; units: Units }) {
  const found = useQuery(dayClosedQuery(person, units));
  if (found.isPending) return <Loading what="the day" />;
  if (found.isError) return <Failed error={found.error} again={() => void found.refetch()} />;
  const { used, pools, currency, left_out } = found.data;
  if (used.length === 0 && pools.length === 0) return null;
  return (
    <Card as="section" aria-label="The day">
      <Heading as="h2" fontSize="lead" mb="2">
        The day
      </Heading>
      {used.map(({ product_id, label, amount }) => (
        <Flex key={product_id} justify="space-between" gap="3">
          <Text>{label}</Text>
          <Text fontWeight="650">{amount}</Text>
        </Flex>
      ))}
      {pools.map(({ pool_id, name, cost, ended }) => (
        <Box key={pool_id} py="2" mt="2" borderTop="1px solid" borderColor="hairline">
          <Flex justify="space-between" gap="3">
            <Text fontWeight="650">{name}</Text>
            <Text>{cost === null ? "no price" : `${currency}${cost.toFixed(2)}`}</Text>
          </Flex>
          {ended ? (
            <PlainLink to={`/pools/${pool_id}/report`} fontSize="note">
              Report for the owner
            </PlainLink>
          ) : (
            <PlainLink to={`/pools/${pool_id}/visit?kind=stop`} fontSize="note">
              Not ended yet
            </PlainLink>
          )}
        </Box>
      ))}
      {left_out !== null && (
        <Text mt="2" fontSize="note" color="soft">
          {left_out}
        </Text>
      )}
    </Card>
  );
}
