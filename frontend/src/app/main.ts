import "@fontsource-variable/atkinson-hyperlegible-next/index.css";
import "../theme/page.css";
import { askEarly } from "../api/early";
import { unitsStore } from "../lib/units";
import { newQueryClient } from "./queryClient";

/** Drawn once with all that is asked, not first without; a server that is slower than this is not waited for. */
const WORTH_WAITING_MS = 400;

// Small, and there first: what the page will ask is on its way while the program itself is still read.
const queries = newQueryClient();
const answered = askEarly(queries, window.location.pathname, unitsStore.get());
void import("./start").then(async ({ start }) => {
  await Promise.race([answered, new Promise((done) => setTimeout(done, WORTH_WAITING_MS))]);
  start(queries);
});

if ("serviceWorker" in navigator && import.meta.env.PROD) {
  window.addEventListener("load", () => {
    navigator.serviceWorker.register("/worker.js").catch(() => {
      // Without it the page works as long as the server does.
    });
  });
}
