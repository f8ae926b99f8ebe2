import { languageOf, loadGrammars, parse, type SyntaxNode } from "uvran/core";
import { TypeScriptTypes } from "uvran/node";
import { Workspace } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

const CODE = `import { Jar } from "./jars.js";
export interface Hive { weight?: number; label: string; count: 1 | 2; box: Jar | null }
export function find(name: string): Hive | undefined { return undefined; }
export function use(hive: Hive, any: any, thing: unknown, open: {}) {
  return [hive.weight, hive.label, hive.count, hive.box, find("a"), any, thing, open];
}
`;
const sandbox = new Sandbox({
  "tsconfig.json":
    '{ "compilerOptions": { "strict": true, "noUncheckedIndexedAccess": true, "module": "NodeNext" } }',
  "hives.ts": CODE,
  "jars.ts": "export class Lid {}\nexport class Jar extends Lid { weigh() { return 1; } }\n",
});
await loadGrammars([languageOf("typescript")]);
const types = new TypeScriptTypes(sandbox.root);
const file = { path: "hives.ts", text: CODE };

function nodeOf(code: string): SyntaxNode {
  const { root } = parse(CODE, languageOf("typescript"));
  return [...root.descendants()].findLast((node) => node.text === code)!;
}

test.each([
  ["hive.weight", { canBeUndefined: true, canBeNull: false, falsy: ["0", "NaN"] }],
  ["hive.label", { canBeUndefined: false, falsy: ['""'], text: "string" }],
  ["hive.count", { falsy: [], text: "1 | 2" }],
  ["hive.box", { canBeNull: true, falsy: [], names: [{ name: "Jar" }, { name: "Lid" }] }],
  ['find("a")', { canBeUndefined: true, names: [{ name: "Hive" }] }],
  ["any", { isAny: true }],
  ["thing", { isAny: true }],
  ["open", { isAny: true }],
])("the compiler knows the type of `%s`", (code, facts) => {
  const { start, end } = nodeOf(code);
  expect(types.typeAt(file, start, end)).toMatchObject({ knowsMissing: true, ...facts });
});

test("it resolves calls, and says nothing of another text than its own", () => {
  const { start, end } = nodeOf('find("a")');
  expect(types.declarationAt(file, start, end)).toEqual({ name: "find", path: "hives.ts", line: 3 });
  expect(types.typeAt({ ...file, text: CODE + "\n" }, start, end)).toBeUndefined();
  expect(types.typeAt({ ...file, path: "none.ts" }, start, end)).toBeUndefined();
  expect(new TypeScriptTypes("/").typeAt(file, start, end)).toBeUndefined();
});

test("an item is not known to be there, whatever the compiler says", () => {
  const code =
    "export function f(list: string[], table: Record<string, string>, one: string) {\n" +
    "  const [a] = list; const b = list[0];\n  return [list[1], table.x, a, b, one, one.length];\n}\n";
  const items = new Sandbox({ "tsconfig.json": '{ "compilerOptions": { "strict": true } }', "a.ts": code });
  const asked = new TypeScriptTypes(items.root);
  const list = code.indexOf("[list[1]");
  const known = ["list[1]", "table.x", "a", "b", "one", "one.length"].map((part) => {
    const start =
      list +
      1 +
      code.slice(list + 1).search(new RegExp(`(?<![\\w.])${part.replace(/[[\]]/g, "\\$&")}(?![\\w.])`));
    return asked.typeAt({ path: "a.ts", text: code }, start, start + part.length)?.knowsMissing;
  });
  expect(known).toEqual([false, false, false, false, true, true]);
});

test("without strict null checks it says that it does not know of missing values", () => {
  const loose = new Sandbox({
    "tsconfig.json": '{ "compilerOptions": { "strict": false } }',
    "hives.ts": CODE,
  });
  const { start, end } = nodeOf("hive.weight");
  const facts = new TypeScriptTypes(loose.root).typeAt(file, start, end);
  expect(facts).toMatchObject({ knowsMissing: false });
});

test("the shipped rules ask it where the file itself does not say", () => {
  const project = new Sandbox({
    "tsconfig.json":
      '{ "compilerOptions": { "strict": true, "noUncheckedIndexedAccess": true, "module": "NodeNext", "target": "es2022" } }',
    "shop/jars.ts":
      "export interface Jar { lid: number }\nexport const jar = (): Jar | undefined => undefined;\nexport const label = (): string => '';\n",
    "shop/a.ts":
      'import { jar, label } from "./jars.js";\nexport const one = jar() || { lid: 1 };\nexport const two = label() || "none";\n',
  });
  const { out } = project.uvran("propose", "shop");
  expect(out).toContain("certain · idiom");
  expect(out).toContain("`jar()` is inferred `Jar | undefined`, which falls back only when it is missing");
  expect(out).toMatch(/a\.ts:3[^]*`label\(\)` is inferred `string`: for "" the old code fell back/);
});

test("what the compiler rules out does not come back when another change touches the line of the declaration", async () => {
  const project = new Sandbox({
    "tsconfig.json": '{ "compilerOptions": { "strict": true, "target": "es2022" } }',
    "a.ts": "export function f(g: () => number): number {\n  var n = g(); return n || 5;\n}\n",
  });
  const { plan } = await (await Workspace.open(project.root)).examine();
  expect(plan.changes.map(({ rules, trust }) => [rules, trust])).toEqual([
    [["javascript/block-scoped"], "certain"],
  ]);
  expect(plan.heldBack.map(({ rule }) => rule)).toEqual(["javascript/falsy-fallback"]);
});
