import { diffWordsWithSpace } from "diff";
import { applyEdits, type Edit } from "../rewrite/index.js";
import { hashText } from "../engine/index.js";
import type { PlanChange } from "./plan.js";

/** The whole lines that a change touches in its own file. Offsets in UTF-16 code units. */
export interface Lines {
  readonly start: number;
  /** Before the line end of the last line. */
  readonly end: number;
  readonly old: string;
  /** What the change makes of them. */
  readonly now: string;
}

/** The lines of a change in its own file, old and new; undefined for one that touches other files only. */
export function linesOfChange(text: string, { edits }: Pick<PlanChange, "edits">): Lines | undefined {
  if (edits.length === 0) return undefined;
  const first = Math.min(...edits.map((edit) => edit.start));
  const last = Math.max(...edits.map((edit) => edit.end));
  const start = first === 0 ? 0 : text.lastIndexOf("\n", first - 1) + 1;
  // An edit that takes its line end too ends where the next line begins.
  const next = text.indexOf("\n", last > start && text[last - 1] === "\n" ? last - 1 : last);
  const end = next < 0 ? text.length : text[next - 1] === "\r" ? next - 1 : next;
  const old = text.slice(start, Math.max(end, last));
  const moved = edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }));
  return { start, end: start + old.length, old, now: applyEdits(old, moved) };
}

/**
 * A change with the lines that a person wrote in place of those that it proposed, with the line ends of the file; as few
 * edits as say the same.
 */
export function withText(text: string, change: PlanChange, written: string): PlanChange {
  const lines = linesOfChange(text, change);
  if (!lines) return change;
  const now = text.includes("\r\n") ? written.replace(/\r?\n/g, "\r\n") : written;
  return { ...change, edits: editsBetween(lines.start, lines.old, now) };
}

function editsBetween(start: number, old: string, now: string): Edit[] {
  const edits: Edit[] = [];
  let at = start;
  let open: { start: number; end: number; text: string } | undefined;
  for (const { value, added, removed } of diffWordsWithSpace(old, now)) {
    if (!added && !removed) {
      if (open) edits.push(open);
      open = undefined;
      at += value.length;
      continue;
    }
    open ??= { start: at, end: at, text: "" };
    if (added) open.text += value;
    else open.end = at += value.length;
  }
  if (open) edits.push(open);
  return edits;
}

/** Tells lines that are not what they were when somebody wrote others in their place. */
export function hashOfLines(lines: string): string {
  return hashText(lines).slice(0, 16);
}
