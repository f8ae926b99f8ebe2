import type { SyntaxTree } from "../../syntax/index.js";
import { linesOf } from "../../rewrite/index.js";
import type { Fault, Rewriting } from "./check.js";

/** Every comment is still there, and none that stood in or beside code that was rewritten is there twice. */
export function commentFault({ before, after, edits }: Rewriting): Fault | undefined {
  const now = commentCounts(after);
  const touched = commentsBeside(before, edits);
  for (const [comment, count] of commentCounts(before)) {
    const left = now.get(comment) ?? 0;
    if (left < count) return { code: "edit.comment", says: `the comment \`${comment}\` would be lost` };
    if (left > count && touched.has(comment))
      return { code: "edit.comment", says: `the comment \`${comment}\` would be written twice` };
  }
  return undefined;
}

function commentCounts(tree: SyntaxTree): Map<string, number> {
  const counts = new Map<string, number>();
  for (const n of tree.comments) {
    const comment = shown(tree, n);
    counts.set(comment, (counts.get(comment) ?? 0) + 1);
  }
  return counts;
}

/** The comments on the lines from the first to the last of each edit's neighbours. */
function commentsBeside(tree: SyntaxTree, edits: Rewriting["edits"]): Set<string> {
  const lines = linesOf(tree, edits);
  const result = new Set<string>();
  for (const n of tree.comments) {
    const line = tree.lineAt(tree.starts[n]!);
    if ([line - 1, line, line + 1].some((near) => lines.has(near))) result.add(shown(tree, n));
  }
  return result;
}

function shown(tree: SyntaxTree, n: number): string {
  return tree.textOf(n).replace(/\s+/g, " ").trim();
}
