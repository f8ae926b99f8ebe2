import react from "@vitejs/plugin-react";
import { fileURLToPath } from "node:url";
import { defaultClientConditions, defineConfig } from "vite";

const built = (path: string): string => fileURLToPath(new URL(`../../dist/${path}`, import.meta.url));

/** The page takes a few lists of the library, and not the engine, which runs in a worker. */
const onlyWhatIsUsed = { treeshake: { moduleSideEffects: (id: string) => !id.startsWith(built("")) } };

export default defineConfig({
  root: fileURLToPath(new URL(".", import.meta.url)),
  base: "./",
  plugins: [react()],
  resolve: {
    alias: [
      { find: /^uvran$/, replacement: built("index.js") },
      { find: /^uvran\/core$/, replacement: built("core.js") },
    ],
    // The engine runs in a worker, where packages must not count on a document.
    conditions: ["worker", ...defaultClientConditions],
  },
  worker: { format: "es" },
  // The compiler and the declarations that rules are checked against are one file, loaded beside the page.
  build: { target: "es2022", chunkSizeWarningLimit: 8000, rolldownOptions: onlyWhatIsUsed },
});
