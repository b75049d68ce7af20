import type { QueryClient } from "@tanstack/react-query";
import { StrictMode } from "react";
import { createRoot } from "react-dom/client";
import { RouterProvider } from "react-router";
import { Providers } from "./Providers";
import { router } from "./router";

/** Here before the first tap on it. */
const UNDER_THE_THUMB = [
  () => import("../features/test/TestPage"),
  () => import("../features/treatment/TreatmentPage"),
  () => import("../features/log/LogPage"),
];

/** Draws the app; `queries` may have asked the server already. */
export function start(queries: QueryClient): void {
  const root = document.getElementById("root");
  if (root === null) return;
  createRoot(root).render(
    <StrictMode>
      <Providers queries={queries}>
        <RouterProvider router={router} />
      </Providers>
    </StrictMode>,
  );
  whenIdle(() => {
    for (const load of UNDER_THE_THUMB) load().catch(() => undefined); // without a network: when it is opened
  });
}

const FIRST_PAGE_MS = 2_500;

/** Idle is also who waits for the first page's answers: it is drawn first. */
function whenIdle(work: () => void): void {
  setTimeout(() => {
    if ("requestIdleCallback" in window) window.requestIdleCallback(work);
    else work(); // Safari has no word for it
  }, FIRST_PAGE_MS);
}
