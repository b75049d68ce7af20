import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  root: "bench",
  plugins: [react()],
  build: { outDir: "../dist-bench", emptyOutDir: true },
});
