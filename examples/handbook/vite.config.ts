import react from "@vitejs/plugin-react";
import { fileURLToPath } from "node:url";
import { defaultClientConditions, defineConfig, type Plugin } from "vite";
import { contents } from "./contents.js";

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** What the pages say of rules, and what can be searched, worked out when the handbook is built. */
function handbookContents(): Plugin {
  const id = "virtual:contents";
  return {
    name: "handbook-contents",
    resolveId: (source) => (source === id ? id : undefined),
    load: async (source) =>
      source === id ? `export default ${JSON.stringify(await contents())};` : undefined,
  };
}

export default defineConfig({
  root: at("."),
  base: "./",
  plugins: [react(), handbookContents()],
  resolve: {
    alias: [{ find: /^uvran\/core$/, replacement: at("../../dist/core.js") }],
    // The engine runs in a worker, where packages must not count on a document.
    conditions: ["worker", ...defaultClientConditions],
  },
  worker: { format: "es" },
  build: { target: "es2022", chunkSizeWarningLimit: 3000 },
});
