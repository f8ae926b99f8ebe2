import { applyEdits } from "../rewrite/index.js";
import { parse, type SyntaxTree } from "../syntax/index.js";
import type { Draft } from "./draft-change.js";

interface Verdict {
  readonly sound: Draft[];
  readonly refused: { readonly draft: Draft; readonly reason: string }[];
}

/**
 * Holds the result to the promises: it must parse without an error and have every comment that the old text
 * had. When it does not, the drafts are tried one after the other and those that spoil it are refused.
 * `result` is the tree of the text after all drafts, if there is one already.
 */
export function soundDrafts(
  text: string,
  tree: SyntaxTree,
  drafts: readonly Draft[],
  result: SyntaxTree | undefined,
): Verdict {
  if (drafts.length === 0) return { sound: [], refused: [] };
  const fault = result ? faultIn(result, tree) : faultOf(text, tree, drafts);
  if (fault === undefined) return { sound: [...drafts], refused: [] };
  const sound: Draft[] = [];
  const refused: { draft: Draft; reason: string }[] = [];
  for (const draft of drafts) {
    const reason = faultOf(text, tree, [draft]) ?? faultOf(text, tree, [...sound, draft]);
    if (reason === undefined) sound.push(draft);
    else refused.push({ draft, reason });
  }
  return { sound, refused };
}

function faultOf(text: string, tree: SyntaxTree, drafts: readonly Draft[]): string | undefined {
  const edits = drafts.flatMap((draft) => draft.edits);
  const after = parse(applyEdits(text, edits), tree.language);
  try {
    return faultIn(after, tree);
  } finally {
    after.dispose();
  }
}

function faultIn(after: SyntaxTree, before: SyntaxTree): string | undefined {
  if (after.errors.length > before.errors.length) return "the result would have a syntax error";
  const kept = commentCounts(after);
  for (const [comment, count] of commentCounts(before)) {
    if ((kept.get(comment) ?? 0) < count) return `the comment \`${comment}\` would be lost`;
  }
  return undefined;
}

function commentCounts(tree: SyntaxTree): Map<string, number> {
  const counts = new Map<string, number>();
  for (const n of tree.comments) {
    const comment = tree.textOf(n).replace(/\s+/g, " ").trim();
    counts.set(comment, (counts.get(comment) ?? 0) + 1);
  }
  return counts;
}
