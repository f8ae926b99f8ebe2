import type { SyntaxNode } from "./node.js";

/** Code that the grammar takes without parentheses in places where the language does not. */
export interface Bare {
  /** The kinds of which this is so, and which of their nodes, where it is not so of all. */
  readonly kinds: readonly string[];
  readonly which?: (node: SyntaxNode) => boolean;
  /** The kinds directly below which they may stand bare; none of the others. */
  readonly only?: readonly string[];
  /** The kinds directly below which they may not; all others are fine. */
  readonly never?: readonly string[];
  /** Places of `never` where they may stand bare all the same. */
  readonly except?: (node: SyntaxNode, parent: SyntaxNode) => boolean;
}

/** Does a node stand without parentheses where its language wants some? */
export function lacksParentheses(node: SyntaxNode): boolean {
  const { parent } = node;
  if (!parent || !node.named) return false;
  return node.tree.language.bare.some(
    ({ kinds, which, only, never, except }) =>
      node.is(kinds) &&
      (which?.(node) ?? true) &&
      ((only !== undefined && !parent.is(only)) || (never !== undefined && parent.is(never))) &&
      !(except?.(node, parent) ?? false),
  );
}
