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
      "fastify",
      "handlebars",
      "jiti",
      "piscina",
      "typescript",
      "web-tree-sitter",
    ],
  },
  build: {
    ssr: true,
    target: "node20",
    outDir: at("dist/program"),
    emptyOutDir: true,
    minify: false,
    rolldownOptions: {
      input: { uvran: at("dist/cli/start.js"), worker: at("dist/workspace/worker.js") },
      output: { comments: false, entryFileNames: "[name].js", chunkFileNames: "[name]-[hash].js" },
    },
  },
});
