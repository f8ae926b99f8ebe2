/**
 * Do our answers about names agree with those of Python's own `symtable`?
 * `npm run build && npx jiti bench/names/python.ts FOLDER…` compares every variable of every file.
 */
import { execFileSync } from "node:child_process";
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import { bodyAround, languageOf, loadGrammars, nameInFile, parse, type SyntaxNode } from "uvran/core";
import { findSources } from "uvran/node";
import { Tally } from "./tally.js";

type Scope = [type: string, name: string, line: number, names: Record<string, "local" | "free" | "global">];

const COMPREHENSIONS: Readonly<Record<string, string>> = {
  list_comprehension: "listcomp",
  set_comprehension: "setcomp",
  dictionary_comprehension: "dictcomp",
  generator_expression: "genexpr",
  lambda: "lambda",
};

const python = languageOf("python");
await loadGrammars([python]);
const tally = new Tally("symtable");
const script = new URL("./python_scopes.py", import.meta.url).pathname;

for (const folder of process.argv.slice(2)) {
  const root = resolve(folder);
  const paths = findSources(root, [], root, []).paths.filter((path) => path.endsWith(".py"));
  const input = paths.map((path) => `${root}/${path}`).join("\n");
  const output = execFileSync("python3", [script], { input, maxBuffer: 1 << 30, encoding: "utf8" });
  const tables = output.split("\n");
  paths.forEach((path, i) => compare(`${root}/${path}`, path, JSON.parse(tables[i]!) as Scope[] | null));
}
tally.print();

function compare(file: string, path: string, scopes: readonly Scope[] | null): void {
  if (!scopes) return tally.skip();
  const tree = parse(readFileSync(file, "utf8"), python);
  if (tree.errors.length > 0) {
    return tally.skip();
  }
  const byKey = new Map<string, Scope[]>();
  for (const scope of scopes) {
    if (scope[0] !== "module" && scope[1] === "top") continue; // symtable itself takes these for the module
    const key = scope[0] === "module" ? "the module" : `${scope[1]} ${scope[2]}`;
    byKey.set(key, [...(byKey.get(key) ?? []), scope]);
  }
  for (const word of tree.names) {
    for (const { node, to, member, unknown } of nameInFile(word, tree).references) {
      if (member) continue;
      const scope = bodyAround(node);
      const tables = byKey.get(keyOf(scope)) ?? [];
      const theirs = tables
        .map(([, , , names]) =>
          Object.hasOwn(names, mangled(word, scope)) ? names[mangled(word, scope)] : undefined,
        )
        .filter((is) => is !== undefined);
      if (tables.length === 0) continue;
      if (unknown !== undefined) {
        tally.unknown(unknown);
        continue;
      }
      const isModule = scope.same(tree.root);
      const ours =
        !to || (to.scope.same(tree.root) && !isModule) ? "global" : to.scope.same(scope) ? "local" : "free";
      // Annotations that are not evaluated are in no table.
      const agrees =
        theirs.includes(ours) ||
        (theirs.length === 0 && ours === "global") ||
        (isModule && !to && theirs.includes("global"));
      tally.answer(
        agrees,
        `${path}:${node.line} ${word} in ${keyOf(scope)}: ours ${ours}, theirs ${theirs.join()}`,
      );
    }
  }
}

function keyOf(scope: SyntaxNode): string {
  const name = COMPREHENSIONS[scope.kind] ?? scope.child("name")?.text;
  if (name === undefined) return "the module";
  const first = scope.parent?.is("decorated_definition") ? scope.parent : scope;
  return `${name} ${first.line}`;
}

/** Names with two underscores in front are spelt with the name of their class. */
function mangled(name: string, scope: SyntaxNode): string {
  if (!name.startsWith("__") || name.endsWith("__")) return name;
  const holder = scope.closest(["class_definition"])?.child("name")?.text.replace(/^_+/, "");
  return holder === undefined || holder === "" ? name : `_${holder}${name}`;
}
