import react from "@vitejs/plugin-react";
import { loadEnv } from "vite";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react()],
  build: { target: "es2022", sourcemap: false, chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": loadEnv("", ".", "KUMPAN_").KUMPAN_API ?? "http://127.0.0.1:8000" } },
  test: { include: ["src/**/*.test.ts"] },
});
