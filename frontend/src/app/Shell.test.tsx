import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen } from "@testing-library/react";
import { createMemoryRouter, type RouteObject, RouterProvider } from "react-router";
import { expect, it } from "vitest";
import { answering } from "../testing/server";
import { system } from "../theme/system";
import { router } from "./router";
import { Shell } from "./Shell";

it("holds the screen between the menu and the bars", async () => {
  const routes = [{ element: <Shell />, children: [{ path: "/", element: <p>The pools</p> }] }];
  answering();
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ChakraProvider value={system}>
        <RouterProvider router={createMemoryRouter(routes)} />
      </ChakraProvider>
    </QueryClientProvider>,
  );
  expect(await screen.findByText("The pools")).toBeTruthy();
  await screen.findAllByText("Files");
  expect(screen.getByLabelText("Main").textContent).toMatch(/Pools.*Round.*Products.*Practice.*Costs/);
  expect(screen.getAllByText("Emergency")[0]?.getAttribute("href")).toBe("/emergency");
  expect(screen.getByText("To the content").getAttribute("href")).toBe("#main");
});

it("loads every station of the app by its address", async () => {
  const children = router.routes[0]?.children ?? [];
  for (const { lazy } of children) {
    if (typeof lazy === "function") expect((await lazy()).Component).toBeTypeOf("function");
  }
  expect(children.map(({ path }) => path)).toContain("/pools/:poolId/test");
});

it("stands around a station whose script is still on its way", async () => {
  answering();
  const [root] = router.routes;
  const [first] = root?.children ?? [];
  const routes = [
    { element: <Shell />, children: [{ ...first, path: "/", lazy: () => new Promise<object>(() => {}) }] },
  ];
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ChakraProvider value={system}>
        <RouterProvider router={createMemoryRouter(routes as RouteObject[])} />
      </ChakraProvider>
    </QueryClientProvider>,
  );
  expect(await screen.findByLabelText("Loading the page")).toBeTruthy();
  expect(screen.getByLabelText("Main")).toBeTruthy();
});
