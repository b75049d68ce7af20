import { Box, type BoxProps } from "@chakra-ui/react";

export function Card(props: BoxProps) {
  return (
    <Box
      bg="card"
      border="1px solid"
      borderColor="hairline"
      borderRadius="10px"
      p={{ base: "4", md: "5" }}
      {...props}
    />
  );
}

/** A caution: framed in the accent, never only colored. */
export function Caution(props: BoxProps) {
  return <Box bg="card" border="1.5px solid" borderColor="accent" borderRadius="10px" p="4" {...props} />;
}
