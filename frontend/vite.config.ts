import react from "@vitejs/plugin-react";
import { loadEnv } from "vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";
import { drawnAtOnce } from "./vite.first.ts";
import { guide } from "./vite.guide.ts";
import { OFFLINE } from "./vite.pwa.ts";
import { pageStyles } from "./vite.theme.ts";

export default defineConfig({
  plugins: [guide(), pageStyles(), react(), drawnAtOnce(), VitePWA(OFFLINE)],
  build: {
    target: "es2022",
    sourcemap: false,
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    // No property of ours or of a library does something when it is read: the themes of components nobody uses go.
    rolldownOptions: {
      treeshake: { propertyReadSideEffects: false },
      // Two scripts for the first page: what asks, and what draws. Twenty would come one after the other.
      output: {
        codeSplitting: {
          groups: [
            { name: "asks", test: /app\/main\.ts$/, priority: 2 },
            { name: "draws", test: /app\/start\.tsx$/, priority: 1 },
          ],
        },
      },
    },
  },
  // The host stays the page's own: the server takes no post whose origin is another one.
  server: {
    fs: { allow: [".."] }, // docs/guide
    proxy: {
      "/api": {
        target: loadEnv("", ".", "KUMPAN_").KUMPAN_API ?? "http://127.0.0.1:8000",
        changeOrigin: false,
      },
    },
  },
  test: {
    maxWorkers: "100%", // all but one of two cores would be one
    projects: [
      { extends: true, test: { name: "units", include: ["src/**/*.test.ts"] } },
      {
        extends: true,
        test: {
          name: "components",
          include: ["src/**/*.test.tsx"],
          environment: "jsdom",
          isolate: false, // one page for all files: four times as fast; the set-up clears it after each test
          setupFiles: ["src/testing/setup.ts"],
          testTimeout: 120_000, // a form of a hundred fields takes a busy machine half a minute; nothing is timed here
        },
      },
    ],
    coverage: {
      provider: "v8",
      include: ["src/**/*.{ts,tsx}"],
      exclude: [
        "src/testing/**",
        "src/api/schema.ts",
        "src/**/*.test.*",
        "src/app/main.ts",
        "src/app/start.tsx",
      ],
      reporter: ["text-summary"],
      thresholds: { lines: 80 },
    },
  },
});
