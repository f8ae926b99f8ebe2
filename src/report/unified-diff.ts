import { structuredPatch, type StructuredPatchHunk } from "diff";
import { applyEdits, type Edit } from "../rewrite/index.js";
import { shownPath } from "./path.js";

/** The whole difference of one file as a unified diff that `git apply` accepts; empty when there is none. */
export function fileDiff(path: string, before: string, after: string): string {
  if (before === after) return "";
  const { hunks } = structuredPatch(path, path, before, after, undefined, undefined, { context: 3 });
  const [a, b] = [shownPath(`a/${path}`), shownPath(`b/${path}`)];
  const end = path.includes(" ") && !a.startsWith('"') ? "\t" : "";
  const head = `diff --git ${a} ${b}\n--- ${a}${end}\n+++ ${b}${end}\n`;
  return head + hunks.map(hunkText).join("");
}

function hunkText({ oldStart, oldLines, newStart, newLines, lines }: StructuredPatchHunk): string {
  const span = (start: number, count: number): string => (count === 1 ? `${start}` : `${start},${count}`);
  // An empty side is counted from the line before it.
  const from = span(oldLines === 0 ? oldStart - 1 : oldStart, oldLines);
  const to = span(newLines === 0 ? newStart - 1 : newStart, newLines);
  return `@@ -${from} +${to} @@\n${lines.join("\n")}\n`;
}

/** A line of a difference for reading. `line` is the 1-based number in the old text, for old lines. */
export interface DiffLine {
  readonly mark: " " | "-" | "+" | "…";
  readonly text: string;
  readonly line?: number;
}

/** What one change does, in lines with some context, without comparing the whole file. */
export function changeLines(text: string, edits: readonly Edit[], context = 2): DiffLine[] {
  const start = Math.min(...edits.map((edit) => edit.start));
  const end = Math.max(...edits.map((edit) => edit.end));
  let from = lineStartBefore(text, start);
  for (let i = 0; i < context && from > 0; i++) from = lineStartBefore(text, from - 1);
  let to = end;
  for (let i = 0; i <= context && to < text.length; i++) {
    const next = text.indexOf("\n", to);
    to = next < 0 ? text.length : next + 1;
  }
  const before = text.slice(from, to);
  const moved = edits.map((edit) => ({ ...edit, start: edit.start - from, end: edit.end - from }));
  const { hunks } = structuredPatch("", "", before, applyEdits(before, moved), undefined, undefined, {
    context,
  });
  const firstLine = text.slice(0, from).split("\n").length;
  return hunks.flatMap((hunk, i): DiffLine[] => {
    let line = firstLine + hunk.oldStart - 1;
    const lines = hunk.lines
      .filter((l) => !l.startsWith("\\"))
      .map((l): DiffLine => {
        const mark = l[0] as "-" | "+" | " ";
        const body = l.slice(1).replace(/\r$/, "");
        return mark === "+" ? { mark, text: body } : { mark, text: body, line: line++ };
      });
    return i === 0 ? lines : [{ mark: "…", text: "" }, ...lines];
  });
}

/** Start of the line that an offset lies on. */
function lineStartBefore(text: string, offset: number): number {
  return offset === 0 ? 0 : text.lastIndexOf("\n", offset - 1) + 1;
}
