import type { SyntaxNode } from "../../../core.js";

/** Is something given another value here, or taken away? */
export function isChanged(node: SyntaxNode): boolean {
  const { parent } = node;
  return (
    (parent?.is(["assignment_expression", "augmented_assignment_expression"]) &&
      parent.child("left")?.same(node)) ||
    parent?.is("update_expression") ||
    (parent?.is("unary_expression") && parent.has("delete")) ||
    false
  );
}
