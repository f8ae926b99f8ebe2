import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const at = (path: string): string => fileURLToPath(new URL(`../${path}`, import.meta.url));

/**
 * The command line in a few files instead of some nine hundred, which takes half of the time until a command begins. What
 * it depends on stays outside, but for packages of very many modules.
 */
export default defineConfig({
  root: at("."),
  ssr: {
    noExternal: true,
    // These find files beside their own, are loaded by few commands, or both.
    external: [
      "@fastify/static",
      "@vscode/tree-sitter-wasm",
      "bullmq",
      "chokidar",
      "editorconfig",
      "fast-xml-parser",
      "fastify",
      "handlebars",
      "iconv-lite",
      "jiti",
      "piscina",
      "typescript",
      "web-tree-sitter",
      "yaml",
    ],
  },
  build: {
    ssr: true,
    target: "node20",
    outDir: at("dist/program"),
    emptyOutDir: true,
    minify: false,
    rolldownOptions: {
      // Nothing happens when these are loaded, so that who takes only their types need not wait for them.
      treeshake: { moduleSideEffects: [{ test: /\/dist\/prove\//, sideEffects: false }] },
      input: { uvran: at("dist/cli/start.js"), worker: at("dist/workspace/worker.js") },
      output: { comments: false, entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
  },
});
