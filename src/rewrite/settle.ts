import type { SyntaxTree, TextRange } from "../syntax/index.js";
import { OpenBrackets } from "./brackets.js";
import type { EditCode } from "./codes.js";
import { applyEdits, type Edit } from "./edits.js";
import { Gap } from "./gap.js";
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
  const moved = segments.filter((segment, i) => !("text" in segment) && !kept.has(i));
  const brackets = { before: new OpenBrackets(), after: new OpenBrackets() };
  let keptBefore = false;
  const gap = (until: number, keptAfter: boolean): void => {
    const place = {
      start: at,
      end: until,
      put,
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
      put += segmentText(tree, segment);
      return;
    }
    gap(segment.start, true);
    keptBefore = true;
    edits.push(...(segment.edits ?? []));
    at = segment.end;
    put = "";
  });
  gap(end, false);
  for (const [i, { start: from, end: to }] of kept)
    edits.push(...movedLines(tree, from, to, segments[i]!, edits));
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
  if (!text.slice(start, end).includes("\n") || tree.firstOnLine(start) === start) return [];
  const own = "text" in segment ? [] : (segment.edits ?? []);
  const isMoved = own.some((edit) => tree.firstOnLine(edit.start) === edit.start || edit.text.includes("\n"));
  const line = tree.lineStart(tree.lineAt(start));
  const first = tree.firstOnLine(start);
  const ahead = edits.filter((edit) => edit.end <= start && edit.end >= line);
  if (isMoved || !ahead.some((edit) => edit.start <= first)) return [];
  const from = Math.min(line, ...ahead.map((edit) => tree.lineStart(tree.lineAt(edit.start))));
  const before = applyEdits(text.slice(0, start), ahead).slice(from);
  const indent = /(?:^|\n)([ \t]*)[^\n]*$/.exec(before)?.[1] ?? "";
  return reindent(tree, start, end, tree.indentAt(start), indent);
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
