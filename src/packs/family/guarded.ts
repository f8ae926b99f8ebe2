import { copy, operatorOf, shapeOf, text, type Match, type Segment, type SyntaxNode } from "../../core.js";

/** An expression with a fallback behind it. */
export function orElse(value: readonly Segment[], fallback: SyntaxNode, operator = "??"): Segment[] {
  const { start, end } = fallback;
  const [open, close] = bindsLess(fallback, operator) ? ["(", ")"] : ["", ""];
  return [...value, text(` ${operator} ${open}`), copy(start, end), text(close)];
}

/** Must an expression stand in brackets behind an operator for a missing value? */
function bindsLess(node: SyntaxNode, operator: string): boolean {
  const shape = shapeOf(node)?.is;
  if (shape === "shortCircuit") return operatorOf(node) !== operator;
  return shape === "branch" || /assignment|lambda|arrow_function|anonymous|yield|sequence/.test(node.kind);
}

/** Does a choice fall back where what is read counts as false, rather than where it is missing? */
export function fallsBackByTruth({ chain }: Match): boolean {
  return chain.asksUse?.asks === "truth";
}
