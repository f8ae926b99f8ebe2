import { oncePerTree, type SyntaxTree } from "../syntax/index.js";
import { applyEdits, trimmed, type Edit } from "./edits.js";

const steps = oncePerTree(({ text }) => stepsOf(text));

/**
 * One step of indentation as the file does it: the commonest difference between a line and the deeper one after
 * it, among those of the same characters as `base`, the indentation it is added to.
 */
export function indentUnit(tree: SyntaxTree, base: string): string {
  const fitting = [...steps(tree)].filter(([step]) => base === "" || step[0] === base.at(-1));
  const best = fitting.sort((a, b) => b[1] - a[1] || a[0].length - b[0].length)[0];
  return best?.[0] ?? (base.endsWith("\t") ? "\t" : tree.language.indentUnit);
}

function stepsOf(text: string): Map<string, number> {
  const counts = new Map<string, number>();
  let before = "";
  for (const line of text.split("\n")) {
    if (line.trim() === "") continue;
    const indent = /^[ \t]*/.exec(line)![0];
    if (indent.startsWith(before) && indent.length > before.length) {
      const step = indent.slice(before.length);
      counts.set(step, (counts.get(step) ?? 0) + 1);
    }
    before = indent;
  }
  return counts;
}

/** The file's line end, taken from its first line. */
export function lineEnd(text: string): string {
  const at = text.indexOf("\n");
  return at > 0 && text[at - 1] === "\r" ? "\r\n" : "\n";
}

/** The edits with the line ends of the file; unchanged where the file has several kinds. */
export function withLineEnds(text: string, edits: readonly Edit[]): Edit[] {
  const bare = /(?<!\r)\n/;
  const isOther = lineEnd(text) === "\r\n" && edits.some((edit) => bare.test(edit.text)) && !bare.test(text);
  if (!isOther) return [...edits];
  return edits.map((edit) => ({ ...edit, text: edit.text.replace(/\r?\n/g, "\r\n") }));
}

/** Code without the indentation that all its lines have; blank lines do not count. */
export function dedented(code: string): string {
  const lines = code.split("\n");
  const depths = lines.filter((line) => line.trim()).map((line) => line.length - line.trimStart().length);
  const least = Math.min(...depths);
  return lines.map((line) => line.slice(Math.min(least, line.length - line.trimStart().length))).join("\n");
}

/**
 * Edits that move the lines of a range from one indentation to another. The line the range starts on is left
 * to the caller, as are blank lines, lines inside multi-line literals and lines without any indentation.
 */
export function reindent(tree: SyntaxTree, start: number, end: number, from: string, to: string): Edit[] {
  if (from === to) return [];
  const edits: Edit[] = [];
  const { text } = tree;
  const literals = literalsIn(tree, start, end);
  for (let at = text.indexOf("\n", start); at >= 0 && at + 1 < end; at = text.indexOf("\n", at + 1)) {
    const line = at + 1;
    if (/^[ \t]*\r?(\n|$)/.test(text.slice(line, text.indexOf("\n", line) + 1 || undefined))) continue;
    if (literals.some(([a, b]) => a < line && line <= b)) continue;
    const own = /^[ \t]*/.exec(text.slice(line, line + 200))![0];
    const now = shifted(own, from, to);
    const edit = now === own ? undefined : trimmed(text, { start: line, end: line + own.length, text: now });
    if (edit) edits.push(edit);
  }
  return edits;
}

/** Code as it reads where the line that it begins on stands this deep, with edits of its own (offsets of the file). */
export function textAt(
  tree: SyntaxTree,
  { start, end }: { readonly start: number; readonly end: number },
  indent: string,
  edits: readonly Edit[] = [],
): string {
  const lines = reindent(tree, start, end, tree.indentAt(start), indent).filter(
    (line) => !edits.some((edit) => edit.start < line.start && line.end <= edit.end),
  );
  const inside = [...lines, ...edits]
    .map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start }))
    .sort((a, b) => a.start - b.start);
  return applyEdits(tree.text.slice(start, end), inside);
}

/**
 * The indentation of a line when the code it is part of moves from one indentation to another. A line without
 * any keeps that; one that is less deep than the code moves by as much as it can.
 */
export function shifted(own: string, from: string, to: string): string {
  if (own.startsWith(from)) return to + own.slice(from.length);
  if (own === "") return own;
  if (to.startsWith(from)) return own + to.slice(from.length);
  const less = from.startsWith(to) ? from.slice(to.length) : undefined;
  return less !== undefined && own.endsWith(less) ? own.slice(0, own.length - less.length) : own;
}

function literalsIn(tree: SyntaxTree, start: number, end: number): [number, number][] {
  const result: [number, number][] = [];
  const kinds = tree.language.multiLineLiterals;
  for (let n = 0; n < tree.size;) {
    if (tree.ends[n]! <= start || tree.starts[n]! >= end) {
      n = tree.after[n]!;
      continue;
    }
    if (kinds.includes(tree.kind(n))) {
      result.push([tree.starts[n]!, tree.ends[n]!]);
      n = tree.after[n]!;
      continue;
    }
    n++;
  }
  return result;
}
