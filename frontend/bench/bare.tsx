import { Box, ChakraProvider, defaultSystem } from "@chakra-ui/react";
import { createRoot } from "react-dom/client";

// The yardstick of `./run bench`: a page with nothing but Chakra.
const root = document.getElementById("root");
if (root !== null) {
  createRoot(root).render(
    <ChakraProvider value={defaultSystem}>
      <Box as="main">Bare</Box>
    </ChakraProvider>,
  );
}
