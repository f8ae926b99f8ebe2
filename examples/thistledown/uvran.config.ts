import { defineConfig } from "uvran/node";

/** The parts in languages that not every machine has; check.sh says so where one was not run. */
const parts = ["ledger", "queens", "jars", "notices", "kiosk", "nights"];

export default defineConfig({
  rules: {
    // a matter of taste, which the co-operative shares
    "python/none-to-default": true,
    // the shop's own way to make classes
    "javascript/class-from-call": { calls: ["Widget.extend"], starts: "init" },
  },
  checks: [
    { name: "market compiles", run: "tsc -p market --noEmit", compare: "messages" },
    { name: "market prints", run: "tsc -p market && node market/build/main.js" },
    { name: "apiary prints", run: "python3 -B apiary/main.py" },
    { name: "reports prints", run: "python3 -B reports/main.py" },
    { name: "shop prints", run: "node shop/shop.js" },
    ...parts.map((part) => ({ name: `${part} prints`, run: `sh check.sh ${part}` })),
  ],
});
