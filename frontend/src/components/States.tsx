import { Box, Text } from "@chakra-ui/react";
import { SideButton } from "./Button";
import { Card } from "./Card";

/** While something loads: words that take the place of what will come, so that nothing jumps much. */
export function Loading({ what }: { what: string }) {
  return (
    <Box minH="12rem" color="soft" role="status">
      Loading {what} …
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
