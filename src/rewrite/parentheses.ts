import { compile, matchAt, snippetCode, Hole, type Snippet } from "../pattern/index.js";
import { parse, type LanguageId, type SyntaxNode, type SyntaxTree } from "../syntax/index.js";

/** A name for a part that is not looked at; one for all places of the same hole. */
const stand = (snippet: Snippet, i: number): string =>
  `uvranPart${snippet.parts.indexOf(snippet.parts[i]!)}z`;

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
  const reads = (bare: readonly number[]): boolean => readsBack(snippet, target, texts, new Set(bare));
  if (risky.length === 0 || reads(risky)) return new Set();
  // A hole that occurs twice must read the same in both places, so its places are tried together.
  const placesOf = (i: number): number[] =>
    risky.filter((other) => snippet.parts[other] === snippet.parts[i]);
  return new Set(risky.filter((i) => !reads(placesOf(i))));
}

/** Fills in the parts named by `bare`, parses, and asks whether each is found again where it was put. */
function readsBack(
  snippet: Snippet,
  target: LanguageId,
  texts: ReadonlyMap<number, string>,
  bare: ReadonlySet<number>,
): boolean {
  const pattern = compile(snippet, target);
  const filled = snippetCode(snippet, (i) => (bare.has(i) ? texts.get(i)! : stand(snippet, i)));
  // Brackets, so that an expression may be broken over lines.
  const open = pattern.isStatements ? "" : "(";
  const close = open === "" ? "" : ")";
  const tree = parse(open + filled + close, pattern.language);
  try {
    if (tree.errors.length > 0) return false;
    for (let n = 0; n < tree.size; n++) {
      if (tree.kindIds[n] !== pattern.rootKind || tree.starts[n] !== open.length) continue;
      const match = matchAt(pattern, tree, n);
      if (!match || match.end < open.length + filled.trimEnd().length) continue;
      const found = [...bare].every((i) => {
        const part = snippet.parts[i];
        const capture = part instanceof Hole ? match.captures.get(part) : undefined;
        return capture && tree.text.slice(capture.start, capture.end) === texts.get(i);
      });
      if (found && !standsBadly(tree)) return true;
    }
    return false;
  } finally {
    tree.dispose();
  }
}

/** Is there something bare beside an operator that the language wants in parentheses there? */
function standsBadly(tree: SyntaxTree): boolean {
  const { language } = tree;
  if (language.neverSideBySide.length === 0 && language.looseOperands.length === 0) return false;
  for (const node of tree.root.descendants()) {
    if (node.is(language.binary) && clashesWithin(node)) return true;
  }
  return false;
}

function clashesWithin(node: SyntaxNode): boolean {
  if (node.children.some((child) => child.is(node.tree.language.looseOperands))) return true;
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
 * statement around it is parsed again to find out, together with the one before it, which in some languages
 * goes on over the line end.
 */
export function fitsInPlace(node: SyntaxNode, code: string): boolean {
  const { tree } = node;
  const lists = tree.language.statementLists;
  let statement = node;
  for (const above of node.ancestors()) {
    if (above.is(lists)) break;
    statement = above;
  }
  const before = statement.parent?.parts.findLast((part) => part.end <= statement.start);
  const start = before?.start ?? statement.start;
  const whole = tree.root;
  return (
    tryWithin(node, code, start, statement.end) ?? tryWithin(node, code, whole.start, whole.end) ?? false
  );
}

/** Undefined when the range does not parse on its own. */
function tryWithin(node: SyntaxNode, code: string, from: number, to: number): boolean | undefined {
  const { tree } = node;
  const before = tree.text.slice(from, node.start);
  const again = parse(before + code + tree.text.slice(node.end, to), tree.language);
  try {
    if (again.errors.length > 0) return undefined;
    const start = before.length;
    return standsAs(again, start, start + code.length, node.parent?.kind) && !standsBadly(again);
  } finally {
    again.dispose();
  }
}

/** Is there a node with exactly this range below one of the kind named? */
function standsAs(tree: SyntaxTree, start: number, end: number, parent: string | undefined): boolean {
  for (let n = 0; n < tree.size && tree.starts[n]! <= start; n++) {
    if (tree.starts[n] === start && tree.ends[n] === end && tree.node(n).parent?.kind === parent) return true;
  }
  return false;
}
