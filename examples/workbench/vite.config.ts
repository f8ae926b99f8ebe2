import react from "@vitejs/plugin-react";
import { fileURLToPath } from "node:url";
import { defineConfig } from "vite";

const built = (path: string): string => fileURLToPath(new URL(`../../dist/${path}`, import.meta.url));

export default defineConfig({
  root: fileURLToPath(new URL(".", import.meta.url)),
  base: "./",
  plugins: [react()],
  resolve: {
    alias: [
      { find: /^uvran$/, replacement: built("index.js") },
      { find: /^uvran\/packs\/(.*)$/, replacement: built("packs/$1/index.js") },
    ],
  },
  build: { target: "es2022", chunkSizeWarningLimit: 2000 },
});
