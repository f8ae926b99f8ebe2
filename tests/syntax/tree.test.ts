import { readFileSync } from "node:fs";
import { Language, Parser, type Node } from "web-tree-sitter";
import { languageOf, sameCode, type LanguageId, type SyntaxTree } from "uvran/core";
import { wasmPath } from "uvran/node";
import { treeOf } from "../languages.js";

const SAMPLES: readonly [LanguageId, string][] = [
  ["typescript", readFileSync("src/rewrite/settle.ts", "utf8")],
  ["typescript", "export const a = <T,>(x?: T) => x ?? null; // ü 🐝\r\nlet b"],
  ["javascript", "if (a && ) { b( ; }"],
  ["javascript", readFileSync("jest.config.js", "utf8")],
  ["tsx", "const page = <p title={x}>{y} and {z /* bees */}</p>;"],
  ["python", readFileSync("examples/thistledown/apiary/scales.py", "utf8")],
  ["python", "def f(:\n  return\n"],
  ["python", "\uFEFFx = 1\r\nif x:\r\n\ty = f'{x!r:>{w}}'\r\n"],
  ["python", ""],
];

/** The parser's own tree by its own interface, as rows like those of `rowsOf`. */
async function ownRows(id: LanguageId, code: string): Promise<unknown[]> {
  await Parser.init();
  const parser = new Parser();
  parser.setLanguage(await Language.load(wasmPath(`${languageOf(id).grammar}.wasm`)));
  const rows: unknown[] = [];
  const walk = (node: Node, depth: number, field: string | null): void => {
    rows.push([depth, node.type, node.isNamed, node.startIndex, node.endIndex, field ?? undefined]);
    for (let i = 0; i < node.childCount; i++) walk(node.child(i)!, depth + 1, node.fieldNameForChild(i));
  };
  walk(parser.parse(code.replace("\uFEFF", "\n"))!.rootNode, 0, null);
  return rows;
}

function rowsOf(tree: SyntaxTree): unknown[] {
  const depthOf = (n: number): number => (n === 0 ? 0 : 1 + depthOf(tree.parents[n]!));
  return Array.from({ length: tree.size }, (_, n) => {
    const { kind, named, start, end, field } = tree.node(n);
    return [depthOf(n), kind, named, start, end, field];
  });
}

test.each(SAMPLES)("the compact tree of %s is the parser's own tree, node for node", async (id, code) => {
  const tree = treeOf(id, code);
  expect(rowsOf(tree)).toEqual(await ownRows(id, code));
  for (let n = 0; n < tree.size; n++) {
    for (const child of tree.children(n)) expect(tree.parents[child]).toBe(n);
  }
});

test("errors are found, and lines are counted from 1", () => {
  const broken = treeOf("javascript", "a;\nif (a && ) b;");
  expect(broken.errors.map((n) => broken.lineAt(broken.starts[n]!))).toEqual([2]);
  expect(treeOf("python", "x = 1\n").errors).toEqual([]);
});

test("nodeAt finds the innermost node, mentions finds variables and not properties", () => {
  const tree = treeOf("javascript", "hive.queen = queen(hive, { queen });");
  expect(tree.nodeAt(5).kind).toBe("property_identifier");
  expect(tree.root.mentions("queen").map((node) => node.start)).toEqual([13, 27]);
});

test.each([
  ["javascript", "f('a', (b))", 'f("a", b,)', true],
  ["javascript", "x = 1", "x = 1;", true],
  ["javascript", "/* one */ a . b", "a.b", true],
  ["javascript", "f('a\\'')", 'f("a\'")', false],
  ["javascript", "(a?.b).c", "a?.b.c", false],
  ["javascript", "a - (b - c)", "a - b - c", false],
  ["python", "f( a,\n  b, )", "f(a, b)", true],
  ["python", "(a,)", "(a)", false],
  ["python", "f'x'", 'f"x"', false],
  // A pattern ends where an operator of tests begins.
  [
    "csharp",
    "class A { bool F() { return a is null /* one */ // two\n || b; } }",
    "class A { bool F() { return (a is null) || b; } }",
    true,
  ],
  [
    "csharp",
    "class A { bool F() { return a is null || b; } }",
    "class A { bool F() { return (a is null) || b; } }",
    true,
  ],
  [
    "csharp",
    "class A { bool F() { return x && a is not null || b is null && c == 3 || d; } }",
    "class A { bool F() { return ((x && (a is not null)) || ((b is null) && (c == 3))) || d; } }",
    true,
  ],
  [
    "csharp",
    "class A { bool F() { return y == a is null || a is 3 or 4 && z; } }",
    "class A { bool F() { return (y == (a is null)) || ((a is 3 or 4) && z); } }",
    true,
  ],
  [
    "csharp",
    "class A { bool F() { return a is null && b; } }",
    "class A { bool F() { return a is null || b; } }",
    false,
  ],
] as const)("%s: is `%s` the same code as `%s`? %s", (id, a, b, same) => {
  expect(sameCode(treeOf(id, a).root, treeOf(id, b).root)).toBe(same);
});
