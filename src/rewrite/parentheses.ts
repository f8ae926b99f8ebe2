import { compile, Hole, matchAt, snippetCode, withoutLimits } from "../pattern/index.js";
import type { CompiledPattern, Snippet } from "../pattern/index.js";
import { Excerpt } from "./excerpt.js";
import {
  isLayout,
  lacksParentheses,
  parse,
  type LanguageId,
  type SyntaxNode,
  type SnippetContext,
  type SyntaxTree,
} from "../syntax/index.js";

/** Code that never needs parentheses: names, numbers, properties. */
const ATOM = /^[\p{L}\p{N}_$.]+$/u;

/**
 * For each part of a replacement, whether its text needs parentheses there: a part that parses to something
 * else when filled in bare does. `texts` gives the code of expression holes; other parts are left out.
 */
export function partsInParentheses(
  snippet: Snippet,
  target: LanguageId,
  texts: ReadonlyMap<number, string>,
): Set<number> {
  const risky = [...texts].filter(([, code]) => !ATOM.test(code)).map(([i]) => i);
  if (risky.length === 0 || isOnePart(snippet)) return new Set();
  const open = withoutLimits(snippet);
  const [pattern] = compile(open, target);
  if (!pattern) return new Set();
  const reads = (bare: readonly number[]): boolean => readsBack(open, pattern, texts, new Set(bare));
  if (reads(risky)) return new Set();
  // A hole that occurs twice must read the same in both places, so its places are tried together.
  const placesOf = (i: number): number[] =>
    risky.filter((other) => snippet.parts[other] === snippet.parts[i]);
  return new Set(risky.filter((i) => !reads(placesOf(i))));
}

/** Nothing but a hole: what it needs around it is a question of the place, not of the replacement. */
function isOnePart({ texts, parts }: Snippet): boolean {
  return parts.length === 1 && texts.every((text) => text.trim() === "");
}

/** Fills in the parts named by `bare`, parses, and asks whether each is found again where it was put. */
function readsBack(
  snippet: Snippet,
  pattern: CompiledPattern,
  texts: ReadonlyMap<number, string>,
  bare: ReadonlySet<number>,
): boolean {
  const filled = snippetCode(snippet, (i) => (bare.has(i) ? texts.get(i)! : pattern.spelling[i]!));
  // Brackets around an expression let it be broken over lines.
  const inBrackets = pattern.isStatements
    ? []
    : pattern.language.contexts.filter((context) => context.name === "expression");
  return [...inBrackets, pattern.context].some((context) =>
    readsBackIn(context, filled, snippet, pattern, texts, bare),
  );
}

function readsBackIn(
  { before, after }: SnippetContext,
  filled: string,
  snippet: Snippet,
  pattern: CompiledPattern,
  texts: ReadonlyMap<number, string>,
  bare: ReadonlySet<number>,
): boolean {
  const tree = parse(before + filled + after, pattern.language);
  if (tree.errors.length > 0) return false;
  const start = before.length;
  const end = start + withoutLastList(filled.trimEnd(), snippet, pattern).length;
  for (let n = 0; n < tree.size; n++) {
    if (tree.kindIds[n] !== pattern.rootKind || tree.starts[n] !== start) continue;
    const match = matchAt(pattern, tree, n);
    if (!match || match.end < end) continue;
    const found = [...bare].every((i) => {
      const part = snippet.parts[i];
      const capture = part instanceof Hole ? match.captures.get(part) : undefined;
      return capture && tree.text.slice(capture.start, capture.end) === texts.get(i);
    });
    if (found && !standsBadly(tree)) return true;
  }
  return false;
}

/** A list at the end of a pattern takes as little as it can, which is nothing. */
function withoutLastList(filled: string, { parts }: Snippet, { spelling }: CompiledPattern): string {
  const last = parts.at(-1);
  const spelt = spelling.at(-1) ?? "";
  const isList = last instanceof Hole && last.isList && filled.endsWith(spelt);
  return isList ? filled.slice(0, filled.length - spelt.length).trimEnd() : filled;
}

/** Is there something bare that the language wants in parentheses there? */
function standsBadly(tree: SyntaxTree): boolean {
  const { bare, binary, neverSideBySide } = tree.language;
  return (
    tree.ofKinds(bare.flatMap(({ kinds }) => kinds)).some((n) => lacksParentheses(tree.node(n))) ||
    (neverSideBySide.length > 0 && tree.ofKinds(binary).some((n) => clashesWithin(tree.node(n))))
  );
}

function clashesWithin(node: SyntaxNode): boolean {
  const own = operatorOf(node);
  const inner = node.children.filter((child) => child.is(node.tree.language.binary)).map(operatorOf);
  return node.tree.language.neverSideBySide.some(
    ([one, others]) =>
      (own === one && inner.some((op) => others.includes(op))) ||
      (others.includes(own) && inner.includes(one)),
  );
}

function operatorOf(node: SyntaxNode): string {
  return node.child("operator")?.kind ?? "";
}

/**
 * Does `code`, put in the place of the expression `node`, stay one expression with the same neighbours? The
 * statement around it is parsed again to find out; code that starts with a bracket or an operator together with
 * the statement before it, which in some languages goes on over the line end.
 */
export function fitsInPlace(node: SyntaxNode, code: string): boolean {
  const { tree } = node;
  const lists = tree.language.statementLists;
  let statement = node;
  for (const above of node.ancestors()) {
    if (above.is(lists)) break;
    statement = above;
  }
  const goesOn = node.start === statement.start && !/^[\s]*[\p{L}\p{N}_$"']/u.test(code);
  const before = goesOn ? statement.parent?.parts.findLast((part) => part.end <= statement.start) : undefined;
  const start = before?.start ?? statement.start;
  // Alone, a statement may read otherwise than in its place; then that decides.
  return tryWithin(node, code, start, statement.end) || fitsInFile(node, code, start);
}

/** The same, asked of its statement alone: quicker, and "no" where the statement reads otherwise in its place. */
export function fitsInStatement(node: SyntaxNode, code: string): boolean {
  let statement = node;
  for (const above of node.ancestors()) {
    if (above.is(node.tree.language.statementLists)) break;
    statement = above;
  }
  return tryWithin(node, code, statement.start, statement.end);
}

function fitsInFile(node: SyntaxNode, code: string, from: number): boolean {
  const lines = Excerpt.around(node.tree, from, node.end);
  const again = lines.edited([{ start: node.start, end: node.end, text: code }]);
  return again.errors.length === 0 && standsIn(again, node.start + lines.shift, code, node.parent);
}

/**
 * Can `code` stand in the place of `node` as statements, where that is one by itself? Its first and its last
 * statement must begin and end with it, in a list such as the one that `node` stands in.
 */
export function fitsAsStatements(node: SyntaxNode, code: string): boolean {
  const { tree } = node;
  const { expressionStatement, statementLists } = tree.language;
  const { parent } = node;
  const isAlone =
    code.includes("\n") &&
    parent?.is(expressionStatement) &&
    parent.start === node.start &&
    parent.end === node.end;
  if (!(isAlone ? parent?.parent : parent)?.is(statementLists)) return false;
  const lines = Excerpt.around(tree, node.start, node.end);
  const again = lines.edited([{ start: node.start, end: node.end, text: code }]);
  if (again.errors.length > lines.tree.errors.length) return false;
  const place = node.start + lines.shift;
  const end = place + code.trimEnd().length;
  // Comments ahead of a list of statements may stand outside of it.
  let first = 0;
  while (
    first < again.size &&
    !(again.starts[first]! >= place && again.isLeaf(first) && !isLayout(again, first))
  )
    first++;
  const start = again.starts[first];
  if (start === undefined) return false;
  for (let n = 0; n < again.size && again.starts[n]! <= start; n++) {
    if (again.starts[n] !== start || !again.node(n).parent?.is(statementLists)) continue;
    if (again.node(n).parent!.parts.some((part) => part.end === end)) return true;
  }
  return false;
}

function tryWithin(node: SyntaxNode, code: string, from: number, to: number): boolean {
  const { tree } = node;
  const context = tree.language.contexts.find((c) => c.name === "statement");
  const before = (context?.before ?? "") + tree.text.slice(from, node.start);
  const after = tree.text.slice(node.end, to) + (context?.after ?? "");
  const again = parse(before + code + after, tree.language);
  return again.errors.length === 0 && standsIn(again, before.length, code, node.parent);
}

/** Does code that was put at a place stand there as one expression? */
function standsIn(tree: SyntaxTree, place: number, code: string, parent: SyntaxNode | undefined): boolean {
  const start = place + (code.length - code.trimStart().length);
  return standsAs(tree, start, place + code.trimEnd().length, parent) && !standsBadly(tree);
}

/** Is there a node with exactly this range below one of the same kind, or below another list of statements? */
function standsAs(tree: SyntaxTree, start: number, end: number, parent: SyntaxNode | undefined): boolean {
  const { statementLists } = tree.language;
  for (let n = 0; n < tree.size && tree.starts[n]! <= start; n++) {
    if (tree.starts[n] !== start || tree.ends[n] !== end) continue;
    const above = tree.node(n).parent;
    if (above?.kind === parent?.kind) return true;
    if (above?.is(statementLists) && parent?.is(statementLists)) return true;
  }
  return false;
}
