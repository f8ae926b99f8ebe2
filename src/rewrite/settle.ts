import type { SyntaxTree, TextRange } from "../syntax/index.js";
import { OpenBrackets } from "./brackets.js";
import type { EditCode } from "./codes.js";
import { applyEdits, sorted, type Edit } from "./edits.js";
import { Gap, lineEndsIn } from "./gap.js";
import { lineEnd, reindent } from "./indent.js";
import { segmentText, type Segment } from "./segment.js";

interface Stretch {
  readonly start: number;
  readonly end: number;
}

/** A rewrite that cannot be done without losing or breaking something; the message says what. */
export class CannotRewrite extends Error {
  override readonly name = "CannotRewrite";

  constructor(
    readonly code: EditCode | `name.${string}`,
    message: string,
    /** The place that speaks against it, where it is another one; lines are 1-based. */
    readonly place: { readonly line?: number | undefined; readonly range?: TextRange | undefined } = {},
  ) {
    super(message);
  }
}

/**
 * Turns the segments of a replacement into the smallest edits of the range `start`–`end`: copied ranges in
 * their old order stay untouched, and between them old and new tokens are aligned, so that common tokens keep
 * their white space and their comments; in a statement, a comment that would break the new line in two goes above it.
 * Throws CannotRewrite for a comment that has no place left.
 */
export function settle(
  tree: SyntaxTree,
  start: number,
  end: number,
  segments: readonly Segment[],
  isStatement = false,
): Edit[] {
  const kept = keepInOrder(segments, start, end);
  segments = segments.map((segment, i) => ({ ...segment, ...kept.get(i) }));
  end = withoutTrailingComments(tree, start, end);
  const edits: Edit[] = [];
  const carried: string[] = [];
  let at = start;
  let put = "";
  let ownLines: number[] = [];
  const moved = segments.filter((segment, i) => !("text" in segment) && !kept.has(i));
  const brackets = { before: new OpenBrackets(), after: new OpenBrackets() };
  let keptBefore = false;
  const gap = (until: number, keptAfter: boolean): void => {
    const place = {
      start: at,
      end: until,
      put,
      ownLines,
      base: start,
      carried,
      moved,
      isStatement,
      keptBefore,
      keptAfter,
      brackets,
    };
    edits.push(...new Gap(tree, place).edits());
  };
  segments.forEach((segment, i) => {
    if ("text" in segment || !kept.has(i)) {
      if ("text" in segment && segment.onOwnLine) ownLines.push(lineEndsIn(put));
      put += segmentText(tree, segment);
      return;
    }
    gap(segment.start, true);
    keptBefore = true;
    edits.push(...(segment.edits ?? []));
    at = segment.end;
    put = "";
    ownLines = [];
  });
  gap(end, false);
  for (const [i, { start: from, end: to }] of [...kept].sort(([, a], [, b]) => a.start - b.start))
    edits.push(...movedLines(tree, from, to, segments[i]!, edits));
  edits.push(...drawnUp(tree, { start, end }, [...kept.values()], edits));
  if (carried.length > 0) edits.unshift(carry(tree, start, carried));
  return edits;
}

/**
 * The lines of a range that stays, where the line that it begins on has another indentation now. A range of which lines
 * are moved already is let alone.
 */
function movedLines(
  tree: SyntaxTree,
  start: number,
  end: number,
  segment: Segment,
  edits: readonly Edit[],
): Edit[] {
  const { text } = tree;
  if ("stays" in segment && segment.stays) return [];
  if (!text.slice(start, end).includes("\n")) return [];
  const own = "text" in segment ? [] : (segment.edits ?? []);
  const isMoved = own.some((edit) => tree.firstOnLine(edit.start) === edit.start || edit.text.includes("\n"));
  const line = tree.lineStart(tree.lineAt(start));
  const first = tree.firstOnLine(start);
  const ahead = edits.filter((edit) => edit.end <= start && edit.end >= line);
  // Where it begins its line, that it does so no longer, as the line end ahead of it is gone.
  const reach = first === start ? line - 1 : first;
  if (isMoved || !ahead.some((edit) => edit.start <= reach)) return [];
  let from = line;
  for (const edit of sorted(edits).reverse())
    if (edit.end <= start && edit.end >= from) from = tree.lineStart(tree.lineAt(edit.start));
  const near = edits
    .filter((edit) => edit.end <= start && edit.start >= from)
    .map((edit) => ({ ...edit, start: edit.start - from, end: edit.end - from }));
  const before = applyEdits(text.slice(from, start), sorted(near));
  const indent = /(?:^|\n)([ \t]*)[^\n]*$/.exec(before)?.[1] ?? "";
  return reindent(tree, start, end, tree.indentAt(start), indent);
}

/**
 * The line ends ahead of closing brackets that stay, where the bracket that opened them is gone with the line end behind
 * it, and another one further on in the line is closed now.
 */
function drawnUp(
  tree: SyntaxTree,
  { start, end }: Stretch,
  kept: readonly Stretch[],
  edits: readonly Edit[],
): Edit[] {
  const { text } = tree;
  // The brackets themselves may be kept, too.
  const pieces = kept.filter((one) => !/^[\s,;)\]}]*$/.test(text.slice(one.start, one.end)));
  const isKept = (at: number): boolean => pieces.some((one) => one.start <= at && at < one.end);
  const isGone = (at: number): boolean => edits.some((edit) => edit.start <= at && at < edit.end);
  const result: Edit[] = [];
  for (const { 0: blank, index } of text.slice(start, end).matchAll(/,?[ \t]*\r?\n[ \t]*(?=[)\]])/g)) {
    const [from, to] = [start + index, start + index + blank.length];
    const opening = tree.nodeAt(to, to + 1).parent?.children[0];
    const isTouched = edits.some((edit) => edit.start < to && edit.end > from);
    if (!opening || opening.start < start || isKept(from) || isKept(to) || isGone(to) || isTouched) continue;
    const wasBroken = BROKEN.test(text.slice(opening.start));
    if (
      !wasBroken ||
      !isGone(opening.start) ||
      tree.commentsIn(start, from + 1).some((n) => tree.ends[n] === from)
    )
      continue;
    const ahead = edits
      .filter((edit) => edit.start >= start && edit.end <= to)
      .map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
    const now = openedBy(applyEdits(text.slice(start, to), sorted(ahead)));
    if (now !== undefined && !BROKEN.test(now)) result.push({ start: from, end: to, text: "" });
  }
  return result;
}

const BROKEN = /^[([][ \t]*\r?\n/;

/** The code from the bracket on that is the last to be open at its end. */
function openedBy(code: string): string | undefined {
  let depth = 0;
  for (let at = code.length - 1; at >= 0; at--) {
    if (")]}".includes(code[at]!)) depth++;
    else if ("([{".includes(code[at]!) && depth-- === 0) return code.slice(at);
  }
  return undefined;
}

/** Some grammars let a statement end with the comment after it; that is not the rewrite's business. */
function withoutTrailingComments(tree: SyntaxTree, start: number, end: number): number {
  for (const n of [...tree.commentsIn(start, end)].reverse()) {
    if (tree.text.slice(tree.ends[n]!, end).trim() !== "") break;
    end = tree.text.slice(0, tree.starts[n]!).trimEnd().length;
  }
  return end;
}

/**
 * Of the copied ranges, those that can stay where they are: the heaviest set in ascending order. Where the same text
 * stands in several places, the last that fits is kept, since what goes then stands ahead of it in one piece.
 */
function keepInOrder(segments: readonly Segment[], from: number, to: number): Map<number, Stretch> {
  const copies = segments.flatMap((s, i) =>
    "text" in s || s.start < from || s.end > to
      ? []
      : [s, ...(s.again ?? [])].map(({ start, end }) => ({ i, start, end })),
  );
  const best: { weight: number; previous: number }[] = [];
  copies.forEach((c, k) => {
    let weight = 0;
    let previous = -1;
    for (let j = 0; j < k; j++) {
      const isLater = best[j]!.weight === weight && copies[previous]?.i === copies[j]!.i;
      if (copies[j]!.i >= c.i || copies[j]!.end > c.start) continue;
      if (best[j]!.weight > weight || isLater) {
        weight = best[j]!.weight;
        previous = j;
      }
    }
    best.push({ weight: weight + (c.end - c.start) + 1, previous });
  });
  const kept = new Map<number, Stretch>();
  let at = best.reduce((top, b, k) => {
    const isLater = b.weight === best[top]?.weight && copies[k]!.i === copies[top]?.i;
    return top < 0 || b.weight > best[top]!.weight || isLater ? k : top;
  }, -1);
  for (; at >= 0; at = best[at]!.previous) {
    const { i, start, end } = copies[at]!;
    kept.set(i, { start, end });
  }
  return kept;
}

/** Comments that must leave the middle of a statement go above it, each on a line of its own. */
function carry(tree: SyntaxTree, start: number, comments: readonly string[]): Edit {
  if (tree.firstOnLine(start) !== start) {
    throw new CannotRewrite("edit.comment", `the comment \`${comments[0]}\` has no place in the new code`);
  }
  const next = lineEnd(tree.text) + tree.indentAt(start);
  return { start, end: start, text: comments.map((comment) => comment + next).join("") };
}
