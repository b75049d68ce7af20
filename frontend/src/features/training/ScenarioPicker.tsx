import { Box, Flex, Grid, Heading, Text } from "@chakra-ui/react";
import type { TrainingScenario } from "../../api/types";
import { MainButton } from "../../components/Button";
import { Card } from "../../components/Card";

/** The practice pools, each with its story, its goals and its days. */
export function ScenarioPicker({
  scenarios,
  onBegin,
}: {
  scenarios: readonly TrainingScenario[];
  onBegin: (key: string) => void;
}) {
  return (
    <Grid gap="5" templateColumns={{ base: "minmax(0,1fr)", lg: "1fr 1fr" }}>
      {scenarios.map((one) => (
        <Card as="section" key={one.key} aria-label={one.title} display="flex" flexDirection="column">
          <Heading as="h2" fontSize="lead">
            {one.title}
          </Heading>
          <Text fontSize="note" color="soft">
            {one.pool}. {one.days} days.
          </Text>
          <Text mt="2" flex="1">
            {one.story}
          </Text>
          <Box mt="3">
            <Text fontWeight="600">To reach:</Text>
            <Box as="ul" listStyleType="disc" pl="5" m="0">
              {one.goals.map((goal) => (
                <li key={goal}>{goal}</li>
              ))}
            </Box>
          </Box>
          <Flex mt="4">
            <MainButton aria-label={`Begin: ${one.title}`} onClick={() => onBegin(one.key)}>
              Begin
            </MainButton>
          </Flex>
        </Card>
      ))}
    </Grid>
  );
}
