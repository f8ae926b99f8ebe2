import type { SyntaxNode } from "../../core.js";

/** The comments on the lines right above a statement, and where the first of them begins. */
export function startWithComments(statement: SyntaxNode): number {
  const { tree } = statement;
  let { start } = statement;
  for (const n of [...tree.commentsIn(0, start)].reverse()) {
    const at = tree.starts[n]!;
    const between = tree.text.slice(tree.ends[n]!, start);
    if (between.trim() !== "" || (between.match(/\n/g) ?? []).length > 1 || tree.firstOnLine(at) !== at)
      break;
    start = at;
  }
  return start;
}
