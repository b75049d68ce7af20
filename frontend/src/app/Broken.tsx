import { Box, Button, Heading, Text } from "@chakra-ui/react";
import { Link } from "react-router";

/** When a screen itself fails. Nothing saved is touched by that. */
export function Broken() {
  return (
    <Box maxW="40rem" mx="auto" p="6">
      <Heading as="h1" fontSize="title" mb="3">
        This screen stumbled
      </Heading>
      <Text mb="4">
        What was saved is safe, and what you were typing is kept on this device. Load the page again.
      </Text>
      <Button minH="44px" bg="ink" color="card" onClick={() => window.location.reload()}>
        Load again
      </Button>
      <Text mt="4">
        <Link to="/emergency">Emergency page</Link>
      </Text>
    </Box>
  );
}
