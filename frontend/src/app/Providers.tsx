import { ChakraProvider } from "@chakra-ui/react";
import { type QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useEffect } from "react";
import { useStore } from "../lib/store";
import { applyMode, modeStore } from "../theme/mode";
import { system } from "../theme/system";

interface Props {
  queries: QueryClient;
  children: ReactNode;
}

export function Providers({ queries, children }: Props) {
  const mode = useStore(modeStore);
  useEffect(() => applyMode(mode), [mode]);
  return (
    <QueryClientProvider client={queries}>
      <ChakraProvider value={system}>{children}</ChakraProvider>
    </QueryClientProvider>
  );
}
