import { shapeOf, type SyntaxNode } from "../../syntax/index.js";

/** Does only matter whether an expression is true, and not which of the false or true values it has? */
export function isOnlyTested(expression: SyntaxNode): boolean {
  const { parent, field } = expression;
  if (!parent) return false;
  const { parenthesized, expressionStatement } = expression.tree.language;
  if (parent.is(parenthesized)) return isOnlyTested(parent);
  if (expressionStatement !== "" && parent.is(expressionStatement)) {
    const loop = parent.parent && shapeOf(parent.parent);
    return loop?.is !== "loop" || parent.field === loop.test || parent.field === "body";
  }
  const shape = shapeOf(parent);
  if (shape?.is === "branch" || shape?.is === "loop") return field === shape.test;
  if (shape?.is === "negation") return true;
  if (shape?.is !== "shortCircuit") return false;
  const runsIf = shape.runsIf[parent.child("operator")?.text ?? ""] ?? "missing";
  if (runsIf === "missing") return false;
  return (runsIf === "false" && field === shape.left) || isOnlyTested(parent);
}
