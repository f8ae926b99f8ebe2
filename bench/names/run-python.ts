/**
 * Does Python's standard library still pass its own tests after renames? `npm run build && npx jiti
 * bench/names/run-python.ts TEST…` renames, in a copy, every private function at the top of a module by a rule (with
 * all its uses in all files), then every local of every module; the tests stay as they are. Then it runs the test
 * modules on the old library and on the new.
 */
import { spawnSync } from "node:child_process";
import { cpSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { atLeast, holes, isSeenElsewhere, languageOf, loadGrammars, python, renamed, rule } from "uvran/core";
import { Workspace } from "uvran/workspace";
import { applyChanges, decode, findSources, inspect } from "uvran/node";
import { renameAll } from "./renamer.js";

const LOCAL = [
  "function_definition",
  "lambda",
  "generator_expression",
  "list_comprehension",
  "set_comprehension",
  "dictionary_comprehension",
];
/** What tests the names and the code of others stays too: they are data there. */
const LEFT_OUT = ["test/", "tests/", "idlelib/", "unittest/test/", "__pycache__/", "site-packages/"];

const language = languageOf("python");
await loadGrammars([language]);
const tests = process.argv.slice(2).map((name) => `test_${name}`);
const library = run("-c", ["import os; print(os.path.dirname(os.__file__))"], "").stdout.trim();
const work = mkdtempSync(join(tmpdir(), "uvran-python-"));
const skipped = /(^|\/)(site-packages|__pycache__|idlelib)(\/|$)/;
/** Folders that carry a grammar of Python itself read and write code by their own rules. */
const withGrammar = readdirSync(library, { withFileTypes: true })
  .filter((entry) => entry.isDirectory() && existsSync(join(library, entry.name, "Grammar.txt")))
  .map(({ name }) => name);
for (const name of ["old", "new"]) {
  cpSync(library, join(work, name), {
    recursive: true,
    filter: (path) =>
      !skipped.test(path.slice(library.length)) &&
      !withGrammar.some((name) => path.endsWith(join("/", name))),
  });
}
const root = join(work, "new");
await renamePrivateFunctions();
renameLocals();
const before = failures("old");
const after = failures("new");
const worse = [...after].filter((test) => !before.has(test));
console.log(
  `${tests.length} test modules: ${before.size} failures before, ${after.size} after, ${worse.length} new`,
);
for (const test of worse) console.log(`  ${test}`);
if (worse.length > 0) process.exitCode = 1;
else rmSync(work, { recursive: true, force: true });

async function renamePrivateFunctions(): Promise<void> {
  const compiled = compiledCode();
  const { name, given, body } = holes({ name: "name", given: "parameters", body: "statements" });
  const privately = rule({
    id: "bench/private-function",
    kind: "idiom",
    title: "rename",
    why: "to see whether all uses are found",
    was: python`
      def ${name}(${given}):
          ${body}
    `,
    where: [
      // The interpreter itself, written in C, calls some by their names: code outside of what is looked at.
      (match) => !compiled.has(match.textOf(name)),
      (match) => match.node.parent?.is("module") === true && /^_[a-z]\w*(?<!_priv)$/.test(match.textOf(name)),
    ],
    uses: renamed(name, (match) => `${match.textOf(name)}_priv`),
    trials: [],
  });
  const { plan } = await new Workspace({ root, rules: [privately], leaveOut: ["idlelib/"] }).examine();
  const sure = atLeast(plan.changes, "likely");
  await applyChanges({ root }, plan, sure);
  const elsewhere = sure.filter((change) => change.elsewhere.length > 0).length;
  console.log(
    `${sure.length} private functions renamed by rule, ${elsewhere} of them in other files too; ` +
      `${plan.changes.length - sure.length} possible, ${plan.heldBack.length} held back`,
  );
}

/** The words in the interpreter's own binaries that could be names of private functions. */
function compiledCode(): Set<string> {
  const code =
    "import sys, sysconfig, os; print(os.path.realpath(sys.executable)); print(sysconfig.get_path('platstdlib') + '/lib-dynload'); print(sysconfig.get_config_var('LIBDIR'))";
  const [binary = "", modules = "", libraries = ""] = run("-c", [code], "").stdout.trim().split("\n");
  const inFolder = (folder: string, pattern: RegExp): string[] =>
    readdirSync(folder)
      .filter((file) => pattern.test(file))
      .map((file) => join(folder, file));
  const paths = [binary, ...inFolder(modules, /\.so$/), ...inFolder(libraries, /^libpython.*\.(so|a)/)];
  return new Set(paths.flatMap((path) => readFileSync(path, "latin1").match(/_[a-z]\w+/g) ?? []));
}

function renameLocals(): void {
  let count = 0;
  let left = 0;
  let files = 0;
  for (const path of findSources(root, [], root, LEFT_OUT).paths) {
    if (!path.endsWith(".py")) continue;
    const bytes = readFileSync(join(root, path));
    const verdict = inspect(bytes);
    if (verdict && "bad" in verdict) continue;
    const { text, ...counts } = renameAll(
      decode(bytes),
      language,
      (declaration) => !isSeenElsewhere(declaration) && declaration.scope.is(LOCAL),
    );
    count += counts.count;
    left += counts.left;
    files++;
    writeFileSync(join(root, path), text);
  }
  console.log(`${files} files: ${count} locals renamed, ${left} left since not all uses are known`);
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
