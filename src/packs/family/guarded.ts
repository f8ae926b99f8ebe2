import { copy, text, type Match, type Segment, type SyntaxNode } from "../../core.js";

/** An expression with a fallback behind it. */
export function orElse(value: readonly Segment[], { start, end }: SyntaxNode, operator = "??"): Segment[] {
  return [...value, text(` ${operator} `), copy(start, end)];
}

/** Does a choice fall back where what is read counts as false, rather than where it is missing? */
export function fallsBackByTruth({ chain }: Match): boolean {
  return chain.asksUse?.asks === "truth";
}
