import { copy, text, type Segment, type SyntaxNode } from "../../index.js";

/** An expression with a fallback behind it. */
export function orElse(value: readonly Segment[], { start, end }: SyntaxNode): Segment[] {
  return [...value, text(" ?? "), copy(start, end)];
}
