import { Box, type BoxProps, Text } from "@chakra-ui/react";
import { SideButton } from "./Button";
import { Card } from "./Card";

/** A gray bar where a line will stand. */
export function Shape(props: BoxProps) {
  return (
    <Box h="1rem" maxW="100%" borderRadius="6px" bg="hairline" opacity="0.6" aria-hidden="true" {...props} />
  );
}

/** While something loads: the shape of what comes, so that nothing jumps; the words are for who listens. */
export function Loading({ what }: { what: string }) {
  return (
    <Box
      minH="12rem"
      role="status"
      aria-label={`Loading ${what}`}
      display="grid"
      gap="3"
      alignContent="start"
    >
      <Shape w="12rem" h="1.5rem" />
      {["100%", "92%", "97%", "60%"].map((width) => (
        <Shape key={width} w={width} h="2.5rem" />
      ))}
    </Box>
  );
}

/** Loading failed: one sentence and the way on. */
export function Failed({ error, again }: { error: Error; again: () => void }) {
  return (
    <Card role="alert" maxW="40rem">
      <Text mb="3">{error.message}</Text>
      <SideButton onClick={again}>Try again</SideButton>
    </Card>
  );
}
