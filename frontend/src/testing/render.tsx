import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render as plainly, screen } from "@testing-library/react";
import userEvent, { PointerEventsCheckLevel } from "@testing-library/user-event";
import type { ReactNode } from "react";
import { MemoryRouter, Route, Routes, useLocation } from "react-router";
import type { PoolHeaderData, PoolPage } from "../api/types";
import { NoticeBar } from "../components/notice";
import { system } from "../theme/system";
import { recordedAt } from "./server";

interface Where {
  /** The address, and the route that names its parts. */
  at?: string;
  route?: string;
}

/** A component as the app shows it: theme, questions to the server, routes, the notice bar. */
export function render(ui: ReactNode, { at = "/", route = "*" }: Where = {}) {
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false, staleTime: 60_000 } } });
  const page = plainly(ui, {
    wrapper: ({ children }) => around(children, queries, { at, route }),
  });
  return {
    ...page,
    user: userEvent.setup({ delay: null, pointerEventsCheck: PointerEventsCheckLevel.Never }),
    queries,
  };
}

function around(screen: ReactNode, queries: QueryClient, { at = "/", route = "*" }: Where) {
  return (
    <QueryClientProvider client={queries}>
      <ChakraProvider value={system}>
        <MemoryRouter initialEntries={[at]}>
          <Routes>
            <Route path={route} element={screen} />
            <Route path="*" element={null} />
          </Routes>
          <Address />
          <NoticeBar />
        </MemoryRouter>
      </ChakraProvider>
    </QueryClientProvider>
  );
}

/** The address one has got to. */
export function address(): string {
  return screen.getByTestId("address").textContent ?? "";
}

function Address() {
  const { pathname, search } = useLocation();
  return <output data-testid="address">{pathname + search}</output>;
}

/** A pool of the recorded season, by its name. */
export function poolNamed(name: string): PoolHeaderData {
  const found = recordedAt<PoolPage>("/pools?sort=name&limit=200").pools.find(
    ({ settings }) => settings.name === name,
  );
  if (found === undefined) throw new Error(`No pool is named ${name}.`);
  return found;
}

export const SALT = poolNamed("Millrace Close");
export const GREEN = poolNamed("Orchard Row 11");
