import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import ts from "typescript";
import { Language as Grammar, Parser } from "web-tree-sitter";
import { allLanguages } from "uvran/core";
import { wasmPath } from "uvran/node";

/** The kinds and fields of a grammar. */
async function vocabularyOf(grammar: string): Promise<Set<string>> {
  const { fields, nodeTypeCount, ...rest } = await Grammar.load(wasmPath(`${grammar}.wasm`)).then(
    (loaded) => ({
      fields: loaded.fields,
      nodeTypeCount: loaded.nodeTypeCount,
      kind: (id: number) => loaded.nodeTypeForId(id),
    }),
  );
  const kinds = Array.from({ length: nodeTypeCount }, (_, id) => rest.kind(id) ?? "");
  return new Set([...kinds, ...fields.flatMap((field) => field ?? [])]);
}

const vocabulary = new Map<string, Set<string>>();
beforeAll(async () => {
  await Parser.init();
  for (const { id, grammar } of allLanguages()) vocabulary.set(id, await vocabularyOf(grammar));
});

/** Which languages a file of the source speaks of, by its name or its folder; all of them for general rooms. */
function languagesOf(path: string): string[] {
  const known = allLanguages().map(({ id }) => id);
  if (/ecmascript|packs\/javascript/.test(path)) return ["javascript", "typescript", "tsx"];
  if (/typescript/.test(path)) return ["javascript", "typescript", "tsx"];
  const own = known.filter((id) => new RegExp(`(/|^)${id}(/|\\.ts$)`).test(path));
  return own.length > 0 ? own : [...known];
}

/** The strings of a file that are given to what asks for a node's kind or for a field. */
function asked(path: string): { line: number; text: string }[] {
  const source = ts.createSourceFile(path, readFileSync(path, "utf8"), ts.ScriptTarget.ES2022, true);
  const found: { line: number; text: string }[] = [];
  const take = (node: ts.Node): void => {
    if (ts.isStringLiteral(node))
      found.push({ line: source.getLineAndCharacterOfPosition(node.getStart()).line + 1, text: node.text });
    else if (ts.isArrayLiteralExpression(node) || ts.isSpreadElement(node)) ts.forEachChild(node, take);
  };
  const isNode = (node: ts.Node): boolean =>
    !/^(answer|missing|shape|use|space|value|outcome)$/.test(node.getText());
  const visit = (node: ts.Node): void => {
    if (ts.isCallExpression(node) && ts.isPropertyAccessExpression(node.expression)) {
      const name = node.expression.name.text;
      if ((name === "is" || name === "closest" || name === "ofKinds") && isNode(node.expression.expression))
        node.arguments.forEach(take);
      if (name === "child" && node.arguments.length === 1) node.arguments.forEach(take);
    }
    if (ts.isBinaryExpression(node) && ts.isPropertyAccessExpression(node.left)) {
      const { name } = node.left;
      const isEquality = /^(===|!==)$/.test(node.operatorToken.getText());
      if (
        isEquality &&
        (name.text === "field" ||
          (name.text === "kind" && /node|child|part|parent/i.test(node.left.expression.getText())))
      )
        take(node.right);
    }
    // Tables of kinds in capitals, and the lists of the facts.
    if (ts.isVariableDeclaration(node) && /^[A-Z_]+$/.test(node.name.getText()) && node.initializer) {
      const text = node.initializer.getText();
      if (/^\[\s*("[a-z_]+",?\s*)+\]$/.test(text) && /_/.test(text)) take(node.initializer);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

const ROOMS = [
  "syntax/facts",
  "syntax/names",
  "syntax/flow",
  "syntax/imports",
  "syntax/classes",
  "syntax/layout",
  "syntax/links",
  "packs",
  "analysis",
  "rewrite",
  "engine",
];

test("every kind and every field that the source asks for is one of its grammar", () => {
  const wrong: string[] = [];
  for (const room of ROOMS) {
    const files = readdirSync(join("src", room), { recursive: true, encoding: "utf8" }).filter((name) =>
      name.endsWith(".ts"),
    );
    for (const name of files) {
      const path = join("src", room, name);
      const own = languagesOf(path).map((id) => vocabulary.get(id)!);
      for (const { line, text } of asked(path))
        if (text !== "" && text !== "ERROR" && !own.some((words) => words.has(text)))
          wrong.push(`${path}:${line} ${text}`);
    }
  }
  expect(wrong).toEqual([]);
});

const LISTS = [
  "comments",
  "layout",
  "layoutWhenBlank",
  "strings",
  "multiLineLiterals",
  "withLineEnd",
  "chains",
  "binary",
  "operators",
  "statementLists",
  "memberLists",
  "argumentLists",
  "parameterLists",
  "modifiers",
  "notExpressions",
  "names",
  "variables",
  "functions",
  "delayed",
  "stores",
  "handsOn",
  "takesApart",
  "calls",
  "memberReads",
  "indexReads",
  "plainValues",
  "literals",
  "classes",
  "neverEmpty",
] as const;

test.each(allLanguages().map((language) => [language.id, language] as const))(
  "the facts of %s name kinds of its grammar",
  (id, language) => {
    // JavaScript and its dialects share their facts.
    const kin = languagesOf(/^(javascript|tsx)$/.test(id) ? "typescript" : `${id}.ts`);
    const words = new Set(kin.flatMap((one) => [...vocabulary.get(one)!]));
    const wrong = LISTS.flatMap((list) =>
      ((language[list] as readonly string[] | undefined) ?? []).map((kind) => [list, kind] as const),
    )
      .filter(([, kind]) => !words.has(kind))
      .map(([list, kind]) => `${list}: ${kind}`);
    const shapes = Object.keys(language.flow.shapes)
      .filter((kind) => !words.has(kind))
      .map((kind) => `shapes: ${kind}`);
    const scopes = Object.keys(language.binding.scopes)
      .filter((kind) => !words.has(kind))
      .map((kind) => `scopes: ${kind}`);
    const leaves = Object.keys(language.binding.leaves)
      .filter((kind) => !words.has(kind))
      .map((kind) => `leaves: ${kind}`);
    const throwing = language.flow.mayThrow
      .filter((kind) => !words.has(kind))
      .map((kind) => `mayThrow: ${kind}`);
    const novel = Object.keys(language.versions.kinds)
      .filter((kind) => !words.has(kind))
      .map((kind) => `versions: ${kind}`);
    expect([...wrong, ...shapes, ...scopes, ...leaves, ...throwing, ...novel]).toEqual([]);
  },
);
