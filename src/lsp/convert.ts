import { TextDocument } from "vscode-languageserver-textdocument";
import type { Range, TextEdit } from "vscode-languageserver/node";
import type { Edit } from "../rewrite/index.js";
import type { TextRange } from "../syntax/index.js";

/** Lines and columns of a plan count from 1, those of the protocol from 0; both count UTF-16 code units. */
export function rangeOf({ start, end }: TextRange): Range {
  return {
    start: { line: start.line - 1, character: start.column - 1 },
    end: { line: end.line - 1, character: end.column - 1 },
  };
}

/** A whole line, as a place of which nothing more is known. */
export const lineRange = (line: number): Range => ({
  start: { line: line - 1, character: 0 },
  end: { line: line - 1, character: Number.MAX_SAFE_INTEGER >>> 1 },
});

/** Edits of a text in the terms of the protocol. */
export function textEdits(text: string, edits: readonly Edit[]): TextEdit[] {
  const document = TextDocument.create("", "", 0, text);
  return edits.map(({ start, end, text: newText }) => ({
    range: { start: document.positionAt(start), end: document.positionAt(end) },
    newText,
  }));
}

/** Have two stretches a character in common, or stand side by side? */
export function meet(one: Range, other: Range): boolean {
  const isBefore = (a: Range["end"], b: Range["start"]): boolean =>
    a.line < b.line || (a.line === b.line && a.character < b.character);
  return !isBefore(one.end, other.start) && !isBefore(other.end, one.start);
}
