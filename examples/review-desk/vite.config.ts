import react from "@vitejs/plugin-react";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  root: at("."),
  base: "./",
  plugins: [react()],
  resolve: { alias: [{ find: /^uvran\/core$/, replacement: at("../../dist/core.js") }] },
  // Beside the command line, whose server hands it out.
  build: {
    target: "es2022",
    outDir: at("../../dist/review-desk"),
    emptyOutDir: true,
    chunkSizeWarningLimit: 2000,
    // The page needs plans and decisions of the library, and nothing that reads code.
    rolldownOptions: { treeshake: { moduleSideEffects: (id) => !id.startsWith(at("../../dist/")) } },
  },
});
