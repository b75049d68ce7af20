import { Box, Text } from "@chakra-ui/react";
import { SideButton } from "./Button";
import { copied } from "./copied";

/** A secret that is shown this once, to be passed on or copied. */
export function ShownOnce({ say, secret, testId }: { say: string; secret: string; testId: string }) {
  return (
    <Box my="3" role="status">
      <Text>{say}</Text>
      <Text fontFamily="mono" overflowWrap="anywhere" data-testid={testId}>
        {secret}
      </Text>
      <SideButton mt="2" onClick={() => void copied(secret)}>
        Copy
      </SideButton>
    </Box>
  );
}
