import { applyEdits, type Edit } from "./edits.js";
import type { SyntaxTree } from "../syntax/index.js";

/**
 * A piece of a replacement: new text, or a range of the original that stays as it is but for `edits`.
 * Because copies are ranges and not strings, what a rewrite does not touch is never printed anew.
 */
export type Segment =
  | {
      readonly text: string;
      /** It begins on a line of its own, also where the old code has no line end there. */
      readonly onOwnLine?: true;
    }
  | {
      readonly start: number;
      readonly end: number;
      readonly edits?: readonly Edit[];
      /** Its lines stay as deep as they are, whatever becomes of the line that it begins on. */
      readonly stays?: true;
      /** Other places of the original with the same text, of which one may be kept instead. */
      readonly again?: readonly { readonly start: number; readonly end: number }[];
    };

/** New text. */
export function text(value: string): Segment {
  return { text: value };
}

/** New text that begins on a line of its own, also where the old code has no line end there: `indent` and the code. */
export function ownLine(indent: string, value: string): Segment {
  return { text: `\n${indent}${value}`, onOwnLine: true };
}

/** The original's range, kept. */
export function copy(start: number, end: number, edits: readonly Edit[] = []): Segment {
  return { start, end, edits };
}

/** A segment as plain text. */
export function segmentText(tree: SyntaxTree, segment: Segment): string {
  if ("text" in segment) return segment.text;
  const { start, end, edits = [] } = segment;
  const inside = edits.map((e) => ({ start: e.start - start, end: e.end - start, text: e.text }));
  return applyEdits(tree.text.slice(start, end), inside);
}
