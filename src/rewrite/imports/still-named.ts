import {
  escaped,
  importStatements,
  oncePerTree,
  type ImportStatement,
  type SyntaxNode,
  type SyntaxTree,
} from "../../syntax/index.js";
import type { Edit } from "../edits.js";

/** The places where code names something, outside of the statements that import. */
export function namedInCode(
  tree: SyntaxTree,
  statements: readonly ImportStatement[],
  name: string,
): readonly SyntaxNode[] {
  return (leavesOf(tree).get(name) ?? [])
    .map((n) => tree.node(n))
    .filter((node) => !statements.some((statement) => statement.node.holds(node)));
}

/** The leaves of code by their text, those of strings and comments aside. */
const leavesOf = oncePerTree((tree): ReadonlyMap<string, readonly number[]> => {
  const { strings, comments } = tree.language;
  const isText = (n: number): boolean => strings.includes(tree.kind(n)) || comments.includes(tree.kind(n));
  // A kind of leaf that only names members names nothing that is imported.
  const isMember = (n: number): boolean => {
    const use = tree.language.binding.leaves[tree.kind(n)];
    return typeof use === "object" && use.memberOf !== undefined;
  };
  // Nor does one in a place that names nothing, as in `export { hive as queen }`.
  const { uses } = tree.language.binding;
  const nameless = new Set(
    Object.keys(uses)
      .filter((place) => uses[place] === "nothing")
      .map((place) => place.split(".")[0]!),
  );
  const isNothing = (n: number): boolean => {
    const parent = tree.parents[n]!;
    if (parent < 0 || !nameless.has(tree.kind(parent))) return false;
    return uses[`${tree.kind(parent)}.${tree.node(n).field}`] === "nothing";
  };
  const table = new Map<string, number[]>();
  for (let n = 0; n < tree.size; n++) {
    if (!tree.isLeaf(n) || !tree.isNamed(n) || isText(n) || isText(Math.max(0, tree.parents[n]!))) continue;
    if (isMember(n) || isNothing(n)) continue;
    const text = tree.textOf(n);
    const list = table.get(text);
    if (list) list.push(n);
    else table.set(text, [n]);
  }
  return table;
});

const importsOf = oncePerTree((tree) => importStatements(tree));

/**
 * Where a text that may be read as code names something: a string that is just the name, as in `__all__`, a type that
 * is written as a string, a comment that gives a type or links to one. Undefined where none does.
 */
export function namedInText(tree: SyntaxTree, name: string): number | undefined {
  const { strings, typesInStrings } = tree.language;
  const imports = importsOf(tree);
  const isImport = (n: number): boolean =>
    imports.some(({ node }) => node.start <= tree.starts[n]! && tree.ends[n]! <= node.end);
  const word = new RegExp(`(?<![\\p{L}\\p{N}_$])${escaped(name)}(?![\\p{L}\\p{N}_$])`, "u");
  for (let n = 0; n < tree.size; n++) {
    if (!strings.includes(tree.kind(n)) || isImport(n)) continue;
    const inside = tree.textOf(n).replace(/^[a-zA-Z]{0,2}(["'`]+)([^]*)\1$/, "$2");
    const isType = typesInStrings && /^[\w\s.,[\]|"']+$/.test(inside) && /[[|.]|^\w+$/.test(inside);
    if (inside === name || (isType && word.test(inside))) return tree.lineAt(tree.starts[n]!);
  }
  for (const n of tree.comments) {
    const speaks = /^#\s*type:|[{]?@\w+/.exec(tree.textOf(n));
    if (speaks && word.test(tree.textOf(n))) return tree.lineAt(tree.starts[n]!);
  }
  return undefined;
}

/** Does every use of something that is imported stand in what edits replace? Where none does, no import can go. */
export function mayLeaveUnused(tree: SyntaxTree, edits: readonly Edit[]): boolean {
  const isGone = ({ start, end }: SyntaxNode): boolean =>
    edits.some((edit) => edit.start <= end && start <= edit.end);
  const statements = importsOf(tree);
  const taken = edits.map(({ start, end }) => tree.text.slice(Math.max(0, start - 40), end + 40)).join(" ");
  return statements
    .flatMap(({ imports }) => imports)
    .some(({ local }) => {
      if (local === undefined || !taken.includes(local)) return false;
      const uses = namedInCode(tree, statements, local);
      return uses.length > 0 && uses.every(isGone);
    });
}

/** What to say of imports that edits leave without a use, and that stay since a text still names what they bring in. */
export function stayingImports(tree: SyntaxTree, edits: readonly Edit[]): string[] {
  const isGone = ({ start, end }: SyntaxNode): boolean =>
    edits.some((edit) => edit.start <= start && end <= edit.end);
  const wordsOf = (code: string): readonly string[] => code.match(/[\p{L}\p{N}_$]+/gu) ?? [];
  const put = new Set(edits.flatMap(({ text }) => wordsOf(text)));
  const taken = new Set(edits.flatMap(({ start, end }) => wordsOf(tree.text.slice(start, end))));
  if ([...taken].every((word) => put.has(word))) return [];
  const statements = importStatements(tree);
  const result: string[] = [];
  for (const { local } of statements.flatMap(({ imports }) => imports)) {
    if (local === undefined || put.has(local) || !taken.has(local)) continue;
    const uses = namedInCode(tree, statements, local);
    if (uses.length === 0 || !uses.every(isGone)) continue;
    const line = namedInText(tree, local);
    if (line !== undefined)
      result.push(
        `nothing else uses \`${local}\`, but its import stays, since line ${line} names it in a text`,
      );
  }
  return result;
}
