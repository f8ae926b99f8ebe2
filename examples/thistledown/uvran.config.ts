import { defineConfig } from "uvran/node";

/** The parts in languages that not every machine has; check.sh says so where one was not run. */
const parts = ["ledger", "queens", "jars", "notices", "kiosk", "nights"];

export default defineConfig({
  rules: {
    // a matter of taste, which the co-operative shares
    "python/none-to-default": true,
  },
  checks: [
    { name: "market compiles", run: "tsc -p market --noEmit", compare: "messages" },
    { name: "market prints", run: "tsc -p market && node market/build/main.js" },
    { name: "apiary prints", run: "python3 -B apiary/main.py" },
    ...parts.map((part) => ({ name: `${part} prints`, run: `sh check.sh ${part}` })),
  ],
});
