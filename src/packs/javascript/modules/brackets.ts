import type { SyntaxNode } from "../../../core.js";

/** What is around an expression, brackets left out. */
export function unwrapped(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.parent?.is("parenthesized_expression")) at = at.parent;
  return at;
}

/** Without the brackets around it. */
export function inner(node: SyntaxNode): SyntaxNode {
  let at = node;
  while (at.is("parenthesized_expression") && at.firstPart) at = at.firstPart;
  return at;
}
