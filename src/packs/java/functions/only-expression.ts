import type { SyntaxNode } from "../../../core.js";

/** The expression that a body comes to, where it is nothing else. */
export function onlyExpression(body: SyntaxNode, mayBeStatement: boolean): SyntaxNode | undefined {
  const [only, ...more] = body.parts;
  if (!only || more.length > 0 || body.tree.commentsIn(body.start, body.end).length > 0) return undefined;
  if (only.is("return_statement")) return only.firstPart;
  return mayBeStatement && only.is("expression_statement") ? only.firstPart : undefined;
}
