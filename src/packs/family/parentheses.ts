import type { SyntaxNode } from "../../core.js";

/** A node without the parentheses around it. */
export function withoutParentheses(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.is(at.tree.language.parenthesized) && at.firstPart) at = at.firstPart;
  return at;
}

/** A node with the parentheses around it. */
export function withParentheses(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.parent?.is(at.tree.language.parenthesized)) at = at.parent;
  return at;
}
