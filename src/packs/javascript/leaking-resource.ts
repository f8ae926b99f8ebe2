import { holes, javascript, trialsIn } from "../../core.js";
import { calledIn, handleOf } from "../family/handles.js";
import { callWritten, leakRule } from "../family/leaks.js";
import { RESOURCES } from "./resources.js";

const { name, made } = holes({
  name: "name",
  made: { kind: "expression", node: ["call_expression", "await_expression"] },
});
const { reports, ignores } = trialsIn("javascript");

export const leakingResource = leakRule({
  id: "javascript/leaking-resource",
  was: [javascript`const ${name} = ${made};`, javascript`let ${name} = ${made};`],
  name,
  made,
  mentions: RESOURCES.map((row) => calledIn(row).split(".").at(-1)!),
  acquires: (match) => handleOf(RESOURCES, match.the(made))?.answer.is === "yes",
  release: (use, match) =>
    callWritten(use, match.textOf(name), [...RESOURCES.map(({ release }) => release), "closeSync(handle)"]),
  byException: true,
  never: true,
  yieldsTo: ["javascript/released-in-finally"],
  trials: [
    reports(
      'import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); if (!p) return 1; fs.closeSync(d); return 2; }\n',
      "where `return 1;` leaves",
    ),
    reports(
      'import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); return d > 2; }\n',
      "never released",
    ),
    reports(
      'import { openSync, closeSync } from "fs";\nfunction f(p) { const d = openSync(p); const n = g(p); closeSync(d); return n; }\n',
      "when `g(p)` throws",
      "likely",
    ),
    ignores(
      'import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); try { return fs.readSync(d); } finally { try { fs.closeSync(d); } catch (e) { log(e); } } }\n',
    ),
    ignores('import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); return d; }\n'),
    ignores('import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); keep(d); }\n'),
    ignores(
      'import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); try { g(); } finally { fs.closeSync(d); } }\n',
    ),
    ignores("function f(p) { const d = hive.openSync(p); return 1; }\n"),
    ignores(
      'import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); try { return fs.readSync(d); } finally { if (d !== undefined) fs.closeSync(d); } }\n',
    ),
    ignores(
      'import fs from "fs";\nfunction f(p) { const d = fs.openSync(p); try { return fs.readSync(d); } finally { d && fs.closeSync(d); } }\n',
    ),
  ],
});
