import { defineConfig } from "uvran/node";

export default defineConfig({
  rules: {
    // a matter of taste, which the co-operative shares
    "python/none-to-default": true,
  },
  checks: [
    { name: "market compiles", run: "tsc -p market --noEmit" },
    { name: "market prints", run: "tsc -p market && node market/build/main.js" },
    { name: "apiary prints", run: "python3 -B apiary/main.py" },
  ],
});
