import { Box, Heading, Text } from "@chakra-ui/react";
import type { Rescue } from "../../api/types";
import { Card } from "../../components/Card";

/** Why it turned, as far as the log tells, and what keeps it from coming back. */
export function CausesCard({ seen }: { seen: Rescue }) {
  return (
    <Card as="section" aria-label="Cause and prevention" mt="5">
      <Heading as="h2" fontSize="lead" mb="2">
        Why it turned
      </Heading>
      {seen.causes.length === 0 ? (
        <Text>The log shows no plain cause.</Text>
      ) : (
        <Box as="ul" listStyleType="disc" pl="5" m="0">
          {seen.causes.map((cause) => (
            <li key={cause.code}>{cause.text}</li>
          ))}
        </Box>
      )}
      <Heading as="h3" fontSize="body" mt="4" mb="1">
        What is sold to go along
      </Heading>
      <Text fontSize="note" fontWeight="600">
        {seen.booster_rule}
      </Text>
      <Box as="ul" listStyleType="disc" pl="5" m="0" fontSize="note">
        {seen.boosters.map((one) => (
          <li key={one.key}>
            <Text as="span" fontWeight="600">
              {one.name}
            </Text>
            : {one.text}
          </li>
        ))}
      </Box>
      <Heading as="h3" fontSize="body" mt="4" mb="1">
        So that it does not come back
      </Heading>
      <Box as="ul" listStyleType="disc" pl="5" m="0" fontSize="note">
        {seen.prevention.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </Box>
    </Card>
  );
}
