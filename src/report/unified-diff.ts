import { structuredPatch, type StructuredPatchHunk } from "diff";
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
