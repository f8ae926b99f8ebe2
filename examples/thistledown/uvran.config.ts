import { defineConfig } from "uvran/node";

/** The parts in languages that not every machine has; check.sh says so where one was not run. */
const parts = ["ledger", "queens", "jars", "notices", "kiosk", "nights"];

/** What the co-operative's mapper calls things, in version 1 and in version 2. */
const mapper = {
  base: ["combmapper.make_base", "combmapper.Model"],
  column: ["combmapper.Column", "combmapper.field"],
  relation: ["combmapper.related", "combmapper.related"],
  typed: "combmapper.Typed",
  reference: "combmapper.link",
  types: { Whole: "int", Number: "float", Text: "str", Remark: "str" },
  primary: "primary",
  many: "many",
  words: { primary: "key", default: "preset" },
};

export default defineConfig({
  // where no manifest says which version the code must run on
  targets: { typescript: "2022", python: "3.9", java: "8", ruby: "2.7", powershell: "5.1" },
  rules: {
    "python/model-base": mapper,
    "python/typed-columns": mapper,
    "python/statement-apart": {
      select: "combmapper.select",
      sessions: ["combmapper.Session"],
      steps: { filter: "where", order_by: "order_by" },
      ends: { all: "all({})", first: "first({})", count: "count({})" },
    },
    // a matter of taste, which the co-operative shares
    "python/none-to-default": true,
    // the shop's own way to make classes
    "javascript/class-from-call": { calls: ["Widget.extend"], starts: "init" },
  },
  handles: [{ language: "python", acquire: "Session(…)", from: "Session from combmapper", release: "handle.close()" }],
  checks: [
    { name: "market compiles", run: "tsc -p market --noEmit", compare: "messages" },
    { name: "market prints", run: "tsc -p market && node market/build/main.js" },
    { name: "apiary prints", run: "python3 -B apiary/main.py" },
    { name: "reports prints", run: "python3 -B reports/main.py" },
    { name: "models prints", run: "sh check.sh models" },
    { name: "shop prints", run: "node shop/shop.js" },
    { name: "desk prints", run: "sh check.sh desk" },
    ...parts.map((part) => ({ name: `${part} prints`, run: `sh check.sh ${part}` })),
  ],
});
