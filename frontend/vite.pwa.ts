import type { VitePWAOptions } from "vite-plugin-pwa";

/** What a device keeps: the whole app, and the last answer to each question of the person's pools. */
export const OFFLINE: Partial<VitePWAOptions> = {
  filename: "worker.js",
  injectRegister: null,
  manifest: false,
  workbox: {
    importScripts: ["/push.js"],
    inlineWorkboxRuntime: true,
    clientsClaim: true,
    skipWaiting: true,
    cleanupOutdatedCaches: true,
    globPatterns: ["**/*.{js,css,html,svg,woff2,webmanifest}", "icon-*.png"],
    globIgnores: ["push.js"],
    maximumFileSizeToCacheInBytes: 3_000_000,
    navigateFallback: "/index.html",
    navigateFallbackDenylist: [/^\/api\//, /^\/metrics/],
    runtimeCaching: [
      {
        // A function: a RegExp would be matched against the whole address.
        urlPattern: ({ url, sameOrigin }) =>
          sameOrigin &&
          url.pathname.startsWith("/api/v1/") &&
          !/\.(pdf|csv|xlsx|zip|jsonl|ics)$/.test(url.pathname),
        method: "GET",
        handler: "NetworkFirst",
        options: {
          cacheName: "kumpan-answers",
          networkTimeoutSeconds: 10,
          cacheableResponse: { statuses: [200] },
          expiration: { maxEntries: 600, maxAgeSeconds: 14 * 24 * 3600, purgeOnQuotaError: true },
          plugins: [
            {
              // So that the page can say that this is what was known, and when.
              cachedResponseWillBeUsed: async ({ cachedResponse }) => {
                if (!cachedResponse) return null;
                const headers = new Headers(cachedResponse.headers);
                headers.set("kumpan-kept", "1");
                return new Response(cachedResponse.body, { status: 200, headers });
              },
            },
          ],
        },
      },
    ],
  },
};
