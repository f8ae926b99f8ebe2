import { applyEdits, sorted, type Edit } from "../rewrite/index.js";
import { parse, type SyntaxTree } from "../syntax/index.js";
import { CHECKS, type Rewriting } from "./checks/index.js";
import type { Draft } from "./draft-change.js";

interface Verdict {
  readonly sound: Draft[];
  readonly refused: { readonly draft: Draft; readonly reason: string }[];
}

/**
 * Holds the result to the promises: it must parse without an error, and pass every check. When it does not, the
 * drafts are tried one after the other and those that spoil it are refused.
 * `result` is the tree of the text after all drafts, if there is one already.
 */
export function soundDrafts(
  text: string,
  tree: SyntaxTree,
  drafts: readonly Draft[],
  result: SyntaxTree | undefined,
): Verdict {
  if (drafts.length === 0) return { sound: [], refused: [] };
  const fault = result ? faultIn(tree, result, drafts) : faultOf(text, tree, drafts);
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
  const after = parse(applyEdits(text, editsOf(drafts)), tree.language);
  return faultIn(tree, after, drafts);
}

function editsOf(drafts: readonly Draft[]): Edit[] {
  return sorted(drafts.flatMap((draft) => draft.edits));
}

function faultIn(before: SyntaxTree, after: SyntaxTree, drafts: readonly Draft[]): string | undefined {
  if (after.errors.length > before.errors.length) return "the result would have a syntax error";
  const spans = drafts.map(({ edits }) => ({
    start: Math.min(...edits.map(({ start }) => start)),
    end: Math.max(...edits.map(({ end }) => end)),
  }));
  const rewriting: Rewriting = { before, after, edits: editsOf(drafts), spans };
  return CHECKS.map((check) => check(rewriting)).find((fault) => fault !== undefined);
}
