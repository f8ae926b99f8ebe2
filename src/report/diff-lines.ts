import { diffWordsWithSpace, structuredPatch } from "diff";
import { applyEdits, type Edit } from "../rewrite/index.js";

/** A line of a difference for reading. `line` is the 1-based number in the old text, for old lines. */
export interface DiffLine {
  readonly mark: " " | "-" | "+" | "…";
  readonly text: string;
  readonly line?: number;
  /** The parts of the line that are different, from where to where; none where all of it is. */
  readonly parts?: readonly (readonly [start: number, end: number])[];
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
    const marked = withParts(lines);
    return i === 0 ? marked : [{ mark: "…", text: "" }, ...marked];
  });
}

/** Start of the line that an offset lies on. */
function lineStartBefore(text: string, offset: number): number {
  return offset === 0 ? 0 : text.lastIndexOf("\n", offset - 1) + 1;
}

/** Marks what is different inside of old lines and the new ones that follow them. */
function withParts(lines: readonly DiffLine[]): DiffLine[] {
  const result: DiffLine[] = [];
  for (let i = 0; i < lines.length;) {
    const old = run(lines, i, "-");
    const now = run(lines, i + old.length, "+");
    if (old.length === 0 || now.length === 0)
      result.push(...(old.length + now.length > 0 ? [...old, ...now] : [lines[i]!]));
    else result.push(...compared(old, now));
    i += Math.max(old.length + now.length, 1);
  }
  return result;
}

function run(lines: readonly DiffLine[], from: number, mark: DiffLine["mark"]): DiffLine[] {
  let to = from;
  while (lines[to]?.mark === mark) to++;
  return lines.slice(from, to);
}

/** Lines that have less than this share of their characters in common are other lines. */
const LEAST_COMMON = 0.25;

function compared(old: readonly DiffLine[], now: readonly DiffLine[]): DiffLine[] {
  const [was, is] = [old, now].map((lines) => lines.map(({ text }) => text).join("\n")) as [string, string];
  const gone: [number, number][] = [];
  const added: [number, number][] = [];
  let [at, to, common] = [0, 0, 0];
  for (const part of diffWordsWithSpace(was, is)) {
    const { length } = part.value;
    if (part.removed) gone.push([at, at + length]);
    if (part.added) added.push([to, to + length]);
    if (!part.removed && !part.added) common += part.value.replace(/\s/g, "").length;
    if (!part.added) at += length;
    if (!part.removed) to += length;
  }
  const most = Math.max(was.replace(/\s/g, "").length, is.replace(/\s/g, "").length);
  if (common < LEAST_COMMON * most) return [...old, ...now];
  return [...split(old, gone), ...split(now, added)];
}

/** Ranges of joined lines as ranges of each. */
function split(lines: readonly DiffLine[], ranges: readonly (readonly [number, number])[]): DiffLine[] {
  let from = 0;
  return lines.map((line) => {
    const { text } = line;
    const parts = ranges
      .map(([a, b]): [number, number] => [Math.max(a - from, 0), Math.min(b - from, text.length)])
      .filter(([a, b]) => a < b && text.slice(a, b).trim() !== "")
      .map((part) => rounded(text, part));
    from += text.length + 1;
    return parts.length === 0 ? line : { ...line, parts: joined(text, parts) };
  });
}

/** A part without white space at its ends, and with the whole of an operator that it cuts. */
function rounded(text: string, [start, end]: readonly [number, number]): [number, number] {
  while (/\s/.test(text[start]!)) start++;
  while (/\s/.test(text[end - 1]!)) end--;
  while (OPERATOR.test(text[start]!) && OPERATOR.test(text[start - 1] ?? "")) start--;
  while (OPERATOR.test(text[end - 1]!) && OPERATOR.test(text[end] ?? "")) end++;
  return [start, end];
}

const OPERATOR = /[?&|=!<>]/;

/** Parts with nothing but white space between them are one. */
function joined(text: string, parts: readonly [number, number][]): [number, number][] {
  const result: [number, number][] = [];
  for (const [start, end] of parts) {
    const last = result.at(-1);
    if (last && text.slice(last[1], start).trim() === "") last[1] = Math.max(last[1], end);
    else result.push([start, end]);
  }
  return result;
}
