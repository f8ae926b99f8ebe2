import type { Language } from "./language.js";
import type { SyntaxNode } from "./node.js";
import type { NodeId } from "./node-arrays.js";
import { oncePerTree } from "./once-per-tree.js";
import type { SyntaxTree } from "./tree.js";

const CLOSING = new Set([")", "]", "}"]);

const significant = oncePerTree(() => new Map<NodeId, readonly NodeId[]>());

/** The children that count when code is compared: no comments, no optional semicolon or trailing comma. */
export function significantChildren(tree: SyntaxTree, n: NodeId): readonly NodeId[] {
  const known = significant(tree);
  let found = known.get(n);
  if (!found) known.set(n, (found = readSignificant(tree, n)));
  return found;
}

function readSignificant(tree: SyntaxTree, n: NodeId): NodeId[] {
  const { language } = tree;
  const children = tree.children(n).filter((c) => !isLayout(tree, c));
  const own = tree.kind(n);
  if (language.optionalBrackets.includes(own) && children.length > 1) {
    if (tree.kind(children[0]!) === "(" && tree.kind(children.at(-1)!) === ")") {
      children.pop();
      children.shift();
      if (children.length > 1 && tree.kind(children.at(-1)!) === ",") children.pop();
    }
  }
  const last = children[children.length - 1];
  if (last === undefined) return children;
  if (language.optionalTokens["*"]?.includes(tree.kind(last))) {
    children.pop();
  } else if (CLOSING.has(tree.kind(last)) && children.length > 2) {
    const before = children[children.length - 2]!;
    if (language.optionalTokens[own]?.includes(tree.kind(before))) {
      children.splice(children.length - 2, 1);
    }
  }
  return children;
}

/** Is this a comment, or nothing but layout? */
export function isLayout(tree: SyntaxTree, n: NodeId): boolean {
  const is = tree.layoutOf(n);
  return is === "always" || (is === "when blank" && tree.textOf(n).trim() === "");
}

/** Looks through parentheses that change nothing. */
export function unwrapped(tree: SyntaxTree, n: NodeId): NodeId {
  const { language } = tree;
  while (tree.kind(n) === language.parenthesized) {
    const inner = significantChildren(tree, n);
    const only = inner[1];
    if (inner.length !== 3 || only === undefined) return n;
    if (language.parenthesesMatter(tree.node(only))) return n;
    n = only;
  }
  return n;
}

/** Are upper and lower case the same in leaves of this kind? */
export function anyCase({ ignoresCase, caseless, strings }: Language, kind: string, named: boolean): boolean {
  if (ignoresCase === "everywhere") return !strings.includes(kind);
  return caseless.includes(kind) || (ignoresCase === "keywords" && !named);
}

/** Leaves and strings: the same token, quote style aside. */
export function sameToken(language: Language, kind: string, a: string, b: string): boolean {
  if (a === b) return true;
  if (anyCase(language, kind, true)) return a.toLowerCase() === b.toLowerCase();
  return language.strings.includes(kind) && sameString(a, b);
}

/** Strings that differ in nothing but their quotes; anything with escapes or prefixes must be identical. */
function sameString(a: string, b: string): boolean {
  const plain = /^(["'])([^"'\\\n\r$#`{}@%]*)\1$/;
  const inA = plain.exec(a);
  const inB = plain.exec(b);
  return inA !== null && inB !== null && inA[2] === inB[2];
}

/**
 * Do two nodes say the same? White space, comments, optional semicolons, trailing commas, redundant
 * parentheses and quote style aside. The trees may differ but must have one grammar.
 */
export function treesEqual(treeA: SyntaxTree, a: NodeId, treeB: SyntaxTree, b: NodeId): boolean {
  a = unwrapped(treeA, a);
  b = unwrapped(treeB, b);
  if (treeA.kindIds[a] !== treeB.kindIds[b]) return false;
  const kind = treeA.kind(a);
  const { language } = treeA;
  if (!treeA.isNamed(a) && treeA.isLeaf(a)) return true;
  if (language.heredocStarts.includes(kind) && heredocText(treeA, a) !== heredocText(treeB, b)) return false;
  if (language.strings.includes(kind) || treeA.isLeaf(a)) {
    return sameToken(language, kind, treeA.textOf(a), treeB.textOf(b));
  }
  const childrenA = significantChildren(treeA, a);
  const childrenB = significantChildren(treeB, b);
  return (
    childrenA.length === childrenB.length &&
    childrenA.every((child, i) => treesEqual(treeA, child, treeB, childrenB[i]!))
  );
}

/** The text that a heredoc's token stands for: bodies follow in the order of their tokens. */
export function heredocText(tree: SyntaxTree, token: NodeId): string | undefined {
  return heredocs(tree).get(token);
}

const heredocs = oncePerTree((tree) => {
  const { heredocStarts, heredocBodies } = tree.language;
  const bodies = tree.ofKinds(heredocBodies);
  const tokens = tree.ofKinds(heredocStarts);
  return new Map(tokens.map((n, i) => [n, bodies[i] === undefined ? "" : tree.textOf(bodies[i])]));
});

/** Do two nodes say the same? See `treesEqual`. */
export function sameCode(a: SyntaxNode, b: SyntaxNode): boolean {
  return treesEqual(a.tree, a.id, b.tree, b.id);
}
