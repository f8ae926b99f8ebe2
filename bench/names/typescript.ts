/**
 * Do our answers about names agree with those of the TypeScript compiler?
 * `npm run build && npx jiti bench/names/typescript.ts FOLDER…` compares every identifier of every file.
 */
import { readFileSync } from "node:fs";
import { resolve } from "node:path";
import ts from "typescript";
import { languageOfFile, loadGrammars, nameInFile, parse, type Reference } from "uvran/core";
import { findSources } from "uvran/node";
import { Tally } from "./tally.js";

const tally = new Tally("the TypeScript checker");

for (const folder of process.argv.slice(2)) {
  const root = resolve(folder);
  for (const path of findSources(root, [], root, []).paths) {
    const language = languageOfFile(path);
    if (!language || !/^(javascript|typescript|tsx)$/.test(language.id)) continue;
    await loadGrammars([language]);
    const text = readFileSync(`${root}/${path}`, "utf8");
    const tree = parse(text, language);
    if (tree.errors.length > 0 || text.startsWith("\uFEFF")) {
      tally.skip();
      continue;
    }
    compare(path, text, tree);
  }
}
tally.print();

function compare(path: string, text: string, tree: ReturnType<typeof parse>): void {
  const name = "/" + path;
  const kind = /\.(jsx?|mjs|cjs)$/.test(path)
    ? ts.ScriptKind.JSX
    : path.endsWith("x")
      ? ts.ScriptKind.TSX
      : ts.ScriptKind.TS;
  const file = ts.createSourceFile(name, text, ts.ScriptTarget.ESNext, true, kind);
  const host: ts.CompilerHost = {
    getSourceFile: (asked) => (asked === name ? file : undefined),
    getDefaultLibFileName: () => "lib.d.ts",
    writeFile: () => undefined,
    getCurrentDirectory: () => "/",
    getCanonicalFileName: (same) => same,
    useCaseSensitiveFileNames: () => true,
    getNewLine: () => "\n",
    fileExists: (asked) => asked === name,
    readFile: () => undefined,
  };
  const options = {
    noLib: true,
    noResolve: true,
    allowJs: true,
    checkJs: true,
    target: ts.ScriptTarget.ESNext,
  };
  const checker = ts.createProgram([name], options, host).getTypeChecker();

  const ours = new Map<number, Reference[]>();
  for (const word of tree.names) {
    for (const reference of nameInFile(word, tree).references) {
      const list = ours.get(reference.node.start);
      if (list) list.push(reference);
      else ours.set(reference.node.start, [reference]);
    }
  }
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node) && !inDocumentation(node)) check(node);
    ts.forEachChild(node, visit);
  };
  visit(file);

  function check(node: ts.Identifier): void {
    const reference = ours.get(node.getStart(file))?.find((one) => !one.member);
    if (!reference) return;
    const symbol = symbolOf(node);
    const theirs = (symbol?.declarations ?? [])
      .filter((declaration) => declaration.getSourceFile() === file && declaresName(declaration))
      .map((declaration) => (ts.getNameOfDeclaration(declaration) ?? declaration).getStart(file));
    if (theirs.length === 0 && symbol?.declarations) return;
    if (reference.unknown !== undefined) return tally.unknown(reference.unknown);
    const place = `${path}:${reference.node.line} ${node.text}`;
    if (!reference.to) return tally.answer(theirs.length === 0, `${place}: none, theirs ${lines(theirs)}`);
    const at = reference.to.at.map(({ start }) => start);
    const agrees = theirs.length > 0 && theirs.every((start) => at.includes(start));
    tally.answer(agrees, `${place}: ours ${lines(at)}, theirs ${lines(theirs)}`);
  }

  function symbolOf(node: ts.Identifier): ts.Symbol | undefined {
    const { parent } = node;
    if (ts.isShorthandPropertyAssignment(parent) && parent.name === node)
      return checker.getShorthandAssignmentValueSymbol(parent);
    if (ts.isExportSpecifier(parent)) return checker.getExportSpecifierLocalTargetSymbol(parent);
    return checker.getSymbolAtLocation(node);
  }

  function lines(starts: readonly number[]): string {
    return starts.map((start) => tree.lineAt(start)).join(",") || "none";
  }
}

/** Names of `@param` and the like are not code. */
function inDocumentation(node: ts.Node): boolean {
  for (let at: ts.Node | undefined = node; at; at = at.parent) if (ts.isJSDoc(at)) return true;
  return false;
}

/** The checker also takes assignments to members, and files, for declarations in JavaScript. */
function declaresName(node: ts.Declaration): boolean {
  return !ts.isExpression(node) && !ts.isSourceFile(node);
}
