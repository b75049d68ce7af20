import { Box, Grid, Heading, Text } from "@chakra-ui/react";
import type { RescueBoard } from "../../api/types";
import { dayText } from "../../lib/days";

const WORDS: Record<string, string> = { done: "done", now: "now", ahead: "ahead" };

/** The stages down a rope: what is done, where one stands, what lies ahead and about when. */
export function StageList({ board }: { board: RescueBoard }) {
  return (
    <Box as="section" aria-label="Stages">
      <Heading as="h2" fontSize="lead" mb="3">
        The course
      </Heading>
      <Box as="ol" listStyleType="none" p="0" m="0">
        {board.stages.map((stage, index) => {
          const last = index === board.stages.length - 1;
          const now = stage.standing === "now";
          return (
            <Grid as="li" key={stage.key} templateColumns="1.25rem minmax(0,1fr)" columnGap="3">
              <Box position="relative" aria-hidden="true">
                {!last && (
                  <Box position="absolute" left="8px" top="12px" bottom="-12px" w="3px" bg="hairline" />
                )}
                <Box
                  position="absolute"
                  top="5px"
                  left={now ? "0" : "3px"}
                  w={now ? "20px" : "13px"}
                  h="13px"
                  borderRadius="4px"
                  border="2px solid"
                  borderColor="ink"
                  bg={stage.standing === "ahead" ? "card" : "ink"}
                />
              </Box>
              <Box pb="4">
                <Text fontWeight={now ? "700" : "600"}>
                  {stage.title}
                  <Text as="span" fontWeight="400" color="soft" fontSize="note">
                    {"  "}
                    {WORDS[stage.standing]}
                    {stage.standing !== "done" && stage.to_on && `, until about ${dayText(stage.to_on)}`}
                  </Text>
                </Text>
                {stage.standing !== "done" && <Text fontSize="note">{stage.text}</Text>}
              </Box>
            </Grid>
          );
        })}
      </Box>
    </Box>
  );
}
