import { ChakraProvider } from "@chakra-ui/react";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { render, screen, waitFor } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { createMemoryRouter, Link, type RouteObject, RouterProvider } from "react-router";
import { expect, it } from "vitest";
import { answering } from "../testing/server";
import { system } from "../theme/system";
import { router } from "./router";
import { Shell } from "./Shell";

function open(routes: RouteObject[]) {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <ChakraProvider value={system}>
        <RouterProvider router={createMemoryRouter(routes)} />
      </ChakraProvider>
    </QueryClientProvider>,
  );
}

/** As a page does that asks for one thing. */
function Focused() {
  return <input aria-label="Line" ref={(line) => line?.focus()} />;
}

const ONE = "11111111-1111-4111-8111-111111111111";
const OTHER = "22222222-2222-4222-8222-222222222222";

/** Something is picked at a pool. */
function Picked() {
  const [picked, pick] = useState("nothing");
  return (
    <>
      <p>Picked: {picked}</p>
      <button type="button" onClick={() => pick("shock")}>
        Pick
      </button>
      <Link to={`/pools/${OTHER}`}>The other</Link>
    </>
  );
}

it("holds the screen between the menu and the bars", async () => {
  const routes = [{ element: <Shell />, children: [{ path: "/", element: <p>The pools</p> }] }];
  answering();
  open(routes);
  expect(await screen.findByText("The pools")).toBeTruthy();
  await screen.findAllByText("Files");
  expect(screen.getByLabelText("Main").textContent).toMatch(/Pools.*Round.*Products.*Practice.*Costs/);
  expect(screen.getAllByText("Emergency")[0]?.getAttribute("href")).toBe("/emergency");
  expect(screen.getByText("To the content").getAttribute("href")).toBe("#main");
});

it("goes on at the content of the next page, unless something there has the focus already", async () => {
  answering();
  const leave = "Save and leave";
  const routes = [
    {
      element: <Shell />,
      children: [
        { path: "/", element: <Link to="/next">{leave}</Link> },
        {
          path: "/next",
          element: (
            <p>
              Next: <Link to="/typed">On</Link>
            </p>
          ),
        },
        { path: "/typed", element: <Focused /> },
      ],
    },
  ];
  open(routes);
  const user = userEvent.setup();
  await user.click(await screen.findByText(leave));
  await screen.findByText("On");
  await waitFor(() => expect(document.activeElement).toBe(screen.getByRole("main")));
  await user.click(screen.getByText("On"));
  expect(document.activeElement).toBe(await screen.findByLabelText("Line"));
});

it("begins anew at another pool: nothing picked or asked at one stands under the name of the other", async () => {
  answering();
  open([
    {
      element: <Shell />,
      children: [
        { path: "/", element: <Link to={`/pools/${ONE}`}>The first</Link> },
        { path: "/pools/:poolId", element: <Picked /> },
      ],
    },
  ]);
  const user = userEvent.setup();
  await user.click(await screen.findByText("The first"));
  await user.click(await screen.findByText("Pick"));
  expect(screen.getByText("Picked: shock")).toBeTruthy();
  await user.click(screen.getByText("The other"));
  expect(await screen.findByText("Picked: nothing")).toBeTruthy();
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
  open(routes as RouteObject[]);
  expect(await screen.findByLabelText("Loading the page")).toBeTruthy();
  expect(screen.getByLabelText("Main")).toBeTruthy();
});
