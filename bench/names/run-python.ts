/**
 * Does Python's standard library still pass its own tests after renames? `npm run build && npx jiti
 * bench/names/run-python.ts TEST…` gives every local of every module (tests too) another name in a copy, and runs
 * the test modules on the old code and on the new.
 */
import { spawnSync } from "node:child_process";
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { isSeenElsewhere, languageOf, loadGrammars } from "uvran";
import { decode, findSources, inspect } from "uvran/node";
import { renameAll } from "./renamer.js";

const python = languageOf("python");
await loadGrammars([python]);
const tests = process.argv.slice(2).map((name) => `test_${name}`);
const library = run("-c", ["import os; print(os.path.dirname(os.__file__))"], "").stdout.trim();
const work = mkdtempSync(join(tmpdir(), "uvran-python-"));
const skipped = /(^|\/)(site-packages|__pycache__|lib2to3\/tests|idlelib)(\/|$)/;
for (const name of ["old", "new"]) {
  cpSync(library, join(work, name), {
    recursive: true,
    filter: (path) => !skipped.test(path.slice(library.length)),
  });
}
let count = 0;
let left = 0;
let files = 0;
for (const path of findSources(join(work, "new"), [], join(work, "new"), []).paths) {
  if (!path.endsWith(".py") || /bad_?syntax|lib2to3|test_source_encoding/.test(path)) continue;
  const bytes = readFileSync(join(work, "new", path));
  const verdict = inspect(bytes);
  if (verdict && "bad" in verdict) continue;
  const renamed = renameAll(
    decode(bytes),
    python,
    (declaration) => !isSeenElsewhere(declaration) && isLocal(declaration.scope.kind),
  );
  count += renamed.count;
  left += renamed.left;
  files++;
  writeFileSync(join(work, "new", path), renamed.text);
}
console.log(`${files} files: ${count} renamed, ${left} left since not all uses are known`);
const before = failures("old");
const after = failures("new");
const worse = [...after].filter((test) => !before.has(test));
console.log(
  `${tests.length} test modules: ${before.size} failures before, ${after.size} after, ${worse.length} new`,
);
for (const test of worse) console.log(`  ${test}`);
if (worse.length > 0) process.exitCode = 1;
else rmSync(work, { recursive: true, force: true });

function isLocal(kind: string): boolean {
  return (
    kind === "function_definition" ||
    kind === "lambda" ||
    kind.endsWith("comprehension") ||
    kind === "generator_expression"
  );
}

/** The tests that fail, and the modules of which nothing runs. */
function failures(name: string): Set<string> {
  const found = new Set<string>();
  for (const test of tests) {
    const { status, stderr, stdout } = run("-m", ["unittest", "-q", `test.${test}`], join(work, name));
    if (status === 0) continue;
    const lines = (stderr + stdout).match(/^(ERROR|FAIL): .*$/gm) ?? [
      `${test} does not run: ${stderr.slice(-300)}`,
    ];
    for (const line of lines) found.add(`${test} ${line}`);
  }
  return found;
}

function run(
  how: string,
  rest: readonly string[],
  path: string,
): { status: number | null; stdout: string; stderr: string } {
  const env = { ...process.env, PYTHONPATH: path, PYTHONDONTWRITEBYTECODE: "1" };
  const options = { env, encoding: "utf8", timeout: 180_000, maxBuffer: 1 << 28 } as const;
  return spawnSync("python3", ["-X", "frozen_modules=off", how, ...rest], options);
}
