import { diffLines } from "diff";
import { applyEdits, linesOf } from "../../rewrite/index.js";
import { shortened } from "../../analysis/index.js";
import type { SyntaxTree } from "../../syntax/index.js";
import type { Fault, Rewriting } from "./check.js";

/** How a comment begins that speaks to a tool about the line that it stands on, or the one behind it. */
const TO_A_TOOL = [
  // `@name`
  /^@[a-z][\w-]*/i,
  // `name: value`, with no space before the colon; not the beginning of a sentence
  /^(?!(todo|note|fixme|xxx|hack|see|warning|example|param|returns?|https?)\b)[a-z][\w-]*:(?!\/\/)\s*\S/,
  // `noname`, in one word
  /^(no[a-z]+|NO[A-Z]+)\b(?=\s*($|[(:,[]|-))/,
  /^pragma\b/i,
  // `name-disable`, `name-ignore`, `name-next-line`
  /^[a-z][\w-]*-(disable|enable|ignore|expect|line|next)\b/i,
];
/** More changed lines than this are not compared one by one. */
const MOST_LINES = 2000;
/** Such a comment on a line of its own speaks of the next line; one that turns something off, of all from there on. */
const OF_THE_NEXT = /^@|next|ignore|expect/i;
/** Such a comment speaks of the whole file. */
const OF_THE_FILE =
  /^@(ts-(no)?check|(no)?flow|jsx\w*|license|preserve|file|fileoverview|overview|module|copyright)\b/i;

/**
 * A comment that speaks to a tool of its line must stay with it: where a rewrite puts the code of several lines on one,
 * or of one line on several, nothing says which of them is meant.
 */
export function toolCommentFault({ before, edits }: Rewriting): Fault | undefined {
  const spoken = spokenLines(before);
  if (spoken.size === 0) return undefined;
  const touched = linesOf(before, edits);
  if (![...spoken.keys()].some((line) => touched.has(line))) return undefined;
  const options = { ignoreWhitespace: true, maxEditLength: MOST_LINES };
  const parts = diffLines(before.text, applyEdits(before.text, edits), options);
  const code = "edit.comment-for-tool";
  if (!parts) return { code, says: "too many lines change in a file with comments that speak to tools" };
  let line = 1;
  for (const [i, { count, added, removed, value }] of parts.entries()) {
    if (added) continue;
    const next = parts[i + 1];
    const put = removed && next?.added ? next.count : 0;
    const comment = removed ? spokenOf(spoken, line, count) : undefined;
    const isFirst = comment !== undefined && spoken.get(line) === comment;
    const stays =
      isFirst && next?.added && OF_A_DECLARATION.test(comment) && declaresTheSame(value, next.value);
    if (
      !stays &&
      comment !== undefined &&
      (put !== count || (count > 1 && !staysOnLines(before, edits, line, line + count)))
    )
      return { code, says: `\`${shortened(comment)}\` speaks of this line, which would not stay one` };
    line += count;
  }
  return undefined;
}

/** A comment that documents what is declared behind it, on however many lines that stands. */
const OF_A_DECLARATION =
  /^\/\*\*\s*@(type|const|constant|readonly|private|protected|public|internal|deprecated|see)\b/;

/** Do both pieces of code begin with the same declaration of a name that is given a value? */
function declaresTheSame(old: string, now: string): boolean {
  const declared = /^\s*(?:export\s+)?(?:const|let|var)\s+[\w$]+\s*=/.exec(old)?.[0];
  return declared !== undefined && now.startsWith(declared);
}

/** Does every edit of some lines stay within one? Then lines side by side that change are the lines that they were. */
function staysOnLines(tree: SyntaxTree, edits: Rewriting["edits"], from: number, to: number): boolean {
  const isHere = ({ start, end }: { start: number; end: number }): boolean =>
    tree.lineAt(end) >= from && tree.lineAt(start) < to;
  return edits
    .filter(isHere)
    .every((edit) => !`${tree.text.slice(edit.start, edit.end)}${edit.text}`.includes("\n"));
}

function spokenOf(spoken: ReadonlyMap<number, string>, line: number, count: number): string | undefined {
  for (let at = line; at < line + count; at++) if (spoken.has(at)) return spoken.get(at);
  return undefined;
}

/** The lines that a comment speaks of to a tool, with the comment. */
function spokenLines(tree: SyntaxTree): Map<number, string> {
  const result = new Map<number, string>();
  for (const n of tree.comments) {
    const comment = tree.textOf(n).trim();
    const says = comment.replace(/^(\/\/+|\/\*+|#+|<#)\s*/, "");
    if (OF_THE_FILE.test(says) || !TO_A_TOOL.some((form) => form.test(says))) continue;
    const line = tree.lineAt(tree.starts[n]!);
    if (tree.firstOnLine(tree.starts[n]!) !== tree.starts[n]) result.set(line, comment);
    else if (OF_THE_NEXT.test(says)) result.set(line + 1, comment);
  }
  return result;
}
