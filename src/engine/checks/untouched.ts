import { shortened } from "../../analysis/index.js";
import type { Edit } from "../../rewrite/index.js";
import { isLabel, jumpOf, type SyntaxTree } from "../../syntax/index.js";
import type { Fault, Rewriting } from "./check.js";

/**
 * Code that no edit touches must be read as it was. A line may begin with what continues the one before, a comment may
 * swallow what follows, a branch may take in the statement behind it: then a node of the old tree is missing in the new.
 */
export function untouchedFault({ before, after, edits, spans }: Rewriting): Fault | undefined {
  // Beside what the parser could not read, anything may be read otherwise after a change far away.
  if (edits.length === 0 || before.errors.length > 0) return undefined;
  const lists = [...before.language.statementLists, ...before.language.memberLists];
  const isStatement = (tree: SyntaxTree, n: number): boolean =>
    tree.parents[n]! >= 0 && lists.includes(tree.kind(tree.parents[n]!)) && !isLabel(tree.node(n));
  // Nodes are asked for in order of their starts, so the search goes on where it was.
  let found = 0;
  /** Does a node that fits begin at an offset of the new text? */
  const standsAt = (from: number, fits: (n: number) => boolean): boolean => {
    while (found > 0 && after.starts[found - 1]! >= from) found--;
    while (found < after.size && after.starts[found]! < from) found++;
    for (let n = found; n < after.size && after.starts[n] === from; n++) if (fits(n)) return true;
    return false;
  };
  const hasStatement = (from: number): boolean => standsAt(from, (n) => isStatement(after, n));
  const beginsLine = (tree: SyntaxTree, at: number): boolean => tree.firstOnLine(at) === at;
  let shift = 0;
  let next = 0;
  // Nodes come in order of their starts.
  for (let n = 0; n < before.size; n++) {
    const [start, end] = [before.starts[n]!, before.ends[n]!];
    for (let edit = edits[next]; edit && edit.end <= start && edit.start < start; edit = edits[++next])
      shift += grownBy(edit);
    if (start === end || !before.isNamed(n) || before.isLeaf(n)) continue;
    if (before.node(n).is(before.language.comments) || before.node(n).is(lists)) continue;
    // A blank that the grammar makes a node of.
    if (before.node(n).is(before.language.layoutWhenBlank) && before.textOf(n).trim() === "") continue;
    const near = nearestEdits(start, edits, next);
    if (near.some((edit) => edit.start < start && start < edit.end)) continue;
    // What is put or taken out right before it.
    const from =
      start + shift + near.reduce((sum, edit) => (edit.end <= start ? sum + grownBy(edit) : sum), 0);
    const to = from + end - start;
    // The items of a list may become arguments.
    const isList = before.node(n).is(before.language.stores);
    const isAlike = (m: number): boolean =>
      after.kindIds[m] === before.kindIds[n] || (isList && after.node(m).is(after.language.argumentLists));
    const isThere = standsAt(from, (m) => after.ends[m] === to && isAlike(m));
    if (isThere && (!isStatement(before, n) || hasStatement(from))) continue;
    const isLine =
      isStatement(before, n) &&
      beginsLine(before, start) &&
      !near.some((edit) => edit.end >= start && edit.start <= start && /\S/.test(edit.text)) &&
      !near.some((edit) => edit.start <= start && edit.end > start) &&
      beginsLine(after, from);
    // What a change spans may be something else on purpose: a list of arguments becomes one of parameters.
    // So may one whose callee has gone.
    const isSpanned =
      spans.some((span) => span.start <= start && end <= span.end) ||
      (before.node(n).is(before.language.argumentLists) && edits[next - 1]?.end === start);
    const isLost =
      isLeftAlone(start, end, edits, next, isSpanned) &&
      !(isSpanned ? standsAt(from, (m) => after.ends[m] === to) : isThere);
    // The expression of a statement may have become the value of something.
    const value = isSpanned ? before.node(n).parts : [];
    const isValue = (m: number): boolean =>
      after.ends[m] === from + value[0]!.end - start && after.kind(m) === value[0]!.kind;
    const isNoLine = isLine && !hasStatement(from) && !(value.length === 1 && standsAt(from, isValue));
    // An exception that is thrown by a statement may be thrown by an expression now.
    const throwsStill = (m: number): boolean => after.ends[m] === to - 1 && jumpOf(after.node(m)) === "throw";
    if ((isLost || isNoLine) && !(before.text[end - 1] === ";" && standsAt(from, throwsStill))) {
      const says = `\`${shortened(before.textOf(n))}\`, which nothing touches, would be read differently`;
      return { code: "edit.read-differently", says };
    }
  }
  return undefined;
}

function grownBy({ start, end, text }: Edit): number {
  return text.length - (end - start);
}

/** The edits from the first that is not wholly before a place to the last that begins there. */
function nearestEdits(start: number, edits: readonly Edit[], next: number): readonly Edit[] {
  let to = next;
  while (edits[to] && edits[to]!.start <= start) to++;
  return edits.slice(next, to);
}

/**
 * Does no edit reach into a node, and none put code right beside it, which it may become part of? In what a change
 * spans, code beside an edit may become part of something else on purpose.
 */
function isLeftAlone(
  start: number,
  end: number,
  edits: readonly Edit[],
  next: number,
  isSpanned: boolean,
): boolean {
  for (let i = Math.max(0, next - 1); i < edits.length; i++) {
    const edit = edits[i]!;
    if (edit.start > end) return true;
    if (edit.end < start) continue;
    const isBeside = edit.end <= start || edit.start >= end;
    if (!isBeside || isSpanned || /\S/.test(edit.text)) return false;
  }
  return true;
}
