import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, useEffect, useState } from "react";
import { Trouble } from "../api/client";
import { askEarly } from "../api/early";
import { useStore } from "../lib/store";
import { unitsStore } from "../lib/units";
import { applyMode, modeStore } from "../theme/mode";
import { system } from "../theme/system";

function newQueryClient(): QueryClient {
  const queries = new QueryClient({
    defaultOptions: {
      queries: {
        staleTime: 10_000,
        networkMode: "always", // without a network the worker answers with what was known
        retry: (count, error) =>
          count < 2 && !(error instanceof Trouble && error.status >= 400 && error.status < 500),
      },
    },
  });
  askEarly(queries, window.location.pathname, unitsStore.get());
  return queries;
}

export function Providers({ children }: { children: ReactNode }) {
  const [queryClient] = useState(newQueryClient);
  const mode = useStore(modeStore);
  useEffect(() => applyMode(mode), [mode]);
  return (
    <QueryClientProvider client={queryClient}>
      <ChakraProvider value={system}>{children}</ChakraProvider>
    </QueryClientProvider>
  );
}
