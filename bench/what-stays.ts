/**
 * "What can stay": `const` is proposed wherever it could be, and the compiler judges, on a C++ library that nobody here wrote:
 *
 *   npx jiti bench/what-stays.ts FILE.cpp … [--flags "-I include"] [--one-by-one]
 *
 * Prints how many of the proposed changes stayed, and how many runs of the compiler that took; with `--one-by-one` also how
 * many stay when each is tried on top of those that did, which is the most there can be, with one run for each.
 */
import { execSync } from "node:child_process";
import { cpSync, mkdtempSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { basename, dirname, join, resolve } from "node:path";
import { parseArgs } from "node:util";
import { cpp, holes, rule, textAfter, trialsIn } from "uvran/core";
import { loadProject } from "uvran/node";
import { Workspace } from "uvran/workspace";

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { flags: { type: "string", default: "" }, "one-by-one": { type: "boolean", default: false } },
});

const { rewrites } = trialsIn("cpp");
const { type, name, value } = holes({
  type: { kind: "type", text: /^(?!.*\b(const|static|constexpr|auto|return|delete|throw|using|typedef)\b)/s },
  name: "name",
  value: "expression",
});
const common = { kind: "idiom", why: "Who reads on need not look where it is changed." } as const;
const rules = [
  rule({
    ...common,
    id: "bench/const-local",
    title: "Say that a variable is never changed",
    was: cpp.statement`${type} ${name} = ${value};`,
    becomes: cpp.statement`const ${type} ${name} = ${value};`,
    trials: [rewrites("void f() { int a = 1; g(a); }", "void f() { const int a = 1; g(a); }")],
  }),
  rule({
    ...common,
    id: "bench/const-pointer",
    title: "Say that a pointer is never changed",
    was: cpp.statement`${type} *${name} = ${value};`,
    becomes: cpp.statement`${type} *const ${name} = ${value};`,
    trials: [rewrites("void f() { int *a = b; g(a); }", "void f() { int *const a = b; g(a); }")],
  }),
];

const root = mkdtempSync(join(tmpdir(), "uvran-stays-"));
const folder = resolve(dirname(positionals[0]!));
for (const entry of readdirSync(folder))
  if (statSync(join(folder, entry)).isFile()) cpSync(join(folder, entry), join(root, entry));
const files = positionals.map((path) => basename(path));
const compile = `for f in ${files.join(" ")}; do g++ -std=c++17 -fsyntax-only -fmax-errors=0 ${values.flags} $f || bad=1; done; exit \${bad:-0}`;
const project = await loadProject(root);
const check = { name: "compiles", run: compile, compare: "messages" } as const;
const workspace = new Workspace({ ...project, rules, targets: { cpp: "17" }, checks: [check] });
const { plan } = await workspace.propose({ paths: files });
const started = Date.now();
const { kept, setAside, runs, proofs, final } = await workspace.prove(
  await workspace.sides({ trust: "possible" }),
);
console.log(
  `${plan.changes.length} places for const in ${files.length} files; all at once: ${proofs[0]!.compared.summary}`,
);
console.log(
  `${kept.length} stay, ${setAside.length} do not; ${runs} runs of the compiler, ${((Date.now() - started) / 1000).toFixed(0)} s; with what stays: ${final[0]!.verdict}`,
);

if (values["one-by-one"]) {
  const stays: typeof plan.changes = [];
  const started = Date.now();
  const original = new Map(files.map((file) => [file, readFileSync(join(root, file), "utf8")]));
  for (const change of plan.changes) {
    const own = [...stays, change].filter(({ path }) => path === change.path);
    writeFileSync(join(root, change.path), await textAfter(change.path, original.get(change.path)!, own));
    try {
      execSync(`g++ -std=c++17 -fsyntax-only ${values.flags} ${change.path}`, { cwd: root, stdio: "ignore" });
      stays.push(change);
    } catch {
      continue;
    }
  }
  const lost = stays.filter(({ id }) => !kept.some((one) => one.id === id));
  console.log(
    `one by one: ${stays.length} stay; ${plan.changes.length} runs, ${((Date.now() - started) / 1000).toFixed(0)} s; not among those above: ${lost.map(({ path, line }) => `${path}:${line}`).join(", ") || "none"}`,
  );
}
