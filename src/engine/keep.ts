import type { NodeId, SyntaxTree } from "../syntax/index.js";

/**
 * A comment that keeps code as it is: `uvran-keep RULE-ID: reason` keeps the next statement or member, or the one
 * on its own line; `uvran-keep-file RULE-ID: reason` keeps the file. Several ids are separated by commas.
 */
export interface Keep {
  readonly rules: readonly string[];
  readonly reason: string;
  /** Line of the comment. */
  readonly line: number;
  /** What is kept. */
  readonly start: number;
  readonly end: number;
}

const FORM = /\buvran-keep(-file)?\s+([\w/-]+(?:\s*,\s*[\w/-]+)*)\s*(?::\s*(.*?))?\s*(?:\*\/|#>)?\s*$/m;

/** The keep comments of a file, in document order. */
export function keepsIn(tree: SyntaxTree): Keep[] {
  if (!tree.text.includes("uvran-keep")) return [];
  return tree.comments.flatMap((comment): Keep[] => {
    const match = FORM.exec(tree.textOf(comment));
    if (!match) return [];
    const [, file, ids = "", reason = ""] = match;
    const range = file ? { start: 0, end: tree.text.length } : statementOf(tree, comment);
    const line = tree.lineAt(tree.starts[comment]!);
    return [{ rules: ids.split(/\s*,\s*/), reason, line, ...range }];
  });
}

/** The statement that a comment stands before, or behind on the same line. Empty where there is none. */
function statementOf(tree: SyntaxTree, comment: NodeId): { start: number; end: number } {
  const at = tree.starts[comment]!;
  const trailing = tree.firstOnLine(at) !== at;
  const line = tree.lineAt(at);
  for (let n = 0; n < tree.size; n++) {
    const parent = tree.parents[n]!;
    const list = parent < 0 ? "" : tree.kind(parent);
    const { statementLists, memberLists } = tree.language;
    if (!statementLists.includes(list) && !memberLists.includes(list)) continue;
    if (!tree.isNamed(n) || tree.language.comments.includes(tree.kind(n))) continue;
    const start = tree.starts[n]!;
    const meant = trailing ? tree.lineAt(start) === line : start > at;
    if (meant) return { start, end: tree.ends[n]! };
  }
  return { start: at, end: at };
}
