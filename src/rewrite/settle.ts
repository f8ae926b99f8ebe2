import type { SyntaxTree } from "../syntax/index.js";
import { trimmed, type Edit } from "./edits.js";
import { lineEnd } from "./indent.js";
import { segmentText, type Segment } from "./segment.js";

/** A rewrite that cannot be done without losing or breaking something; the message says what. */
export class CannotRewrite extends Error {
  override readonly name = "CannotRewrite";
}

/**
 * Turns the segments of a replacement into the smallest edits of the range `start`–`end`: copied ranges in
 * their old order stay untouched, and between them old and new tokens are aligned, so that common tokens keep
 * their white space and their comments. Throws CannotRewrite for a comment that has no place left.
 */
export function settle(tree: SyntaxTree, start: number, end: number, segments: readonly Segment[]): Edit[] {
  const kept = keepInOrder(segments);
  end = withoutTrailingComments(tree, start, end);
  const edits: Edit[] = [];
  const carried: string[] = [];
  let at = start;
  let put = "";
  const gap = (until: number): void => {
    edits.push(...new Gap(tree, at, until, put, carried).edits());
  };
  segments.forEach((segment, i) => {
    if ("text" in segment || !kept.has(i)) {
      put += segmentText(tree, segment);
      return;
    }
    gap(segment.start);
    edits.push(...(segment.edits ?? []));
    at = segment.end;
    put = "";
  });
  gap(end);
  if (carried.length > 0) edits.unshift(carry(tree, start, carried));
  return edits;
}

/** Some grammars let a statement end with the comment after it; that is not the rewrite's business. */
function withoutTrailingComments(tree: SyntaxTree, start: number, end: number): number {
  for (const n of [...tree.commentsIn(start, end)].reverse()) {
    if (tree.text.slice(tree.ends[n]!, end).trim() !== "") break;
    end = tree.text.slice(0, tree.starts[n]!).trimEnd().length;
  }
  return end;
}

/** Of the copied ranges, those that can stay where they are: the heaviest set in ascending order. */
function keepInOrder(segments: readonly Segment[]): Set<number> {
  const copies = segments.flatMap((s, i) => ("text" in s ? [] : [{ i, start: s.start, end: s.end }]));
  const best: { weight: number; previous: number }[] = [];
  copies.forEach((c, k) => {
    let weight = 0;
    let previous = -1;
    for (let j = 0; j < k; j++) {
      if (copies[j]!.end <= c.start && best[j]!.weight > weight) {
        weight = best[j]!.weight;
        previous = j;
      }
    }
    best.push({ weight: weight + (c.end - c.start) + 1, previous });
  });
  const kept = new Set<number>();
  let at = best.reduce((top, b, k) => (top < 0 || b.weight > best[top]!.weight ? k : top), -1);
  for (; at >= 0; at = best[at]!.previous) kept.add(copies[at]!.i);
  return kept;
}

/** Comments that must leave the middle of a statement go above it, each on a line of its own. */
function carry(tree: SyntaxTree, start: number, comments: readonly string[]): Edit {
  if (tree.firstOnLine(start) !== start) {
    throw new CannotRewrite(`the comment \`${comments[0]}\` has no place in the new code`);
  }
  const next = lineEnd(tree.text) + tree.indentAt(start);
  return { start, end: start, text: comments.map((comment) => comment + next).join("") };
}

interface Token {
  readonly text: string;
  readonly start: number;
  readonly end: number;
}

/** Strings, words, single brackets and separators, and runs of operator characters. */
const TOKEN =
  /"(?:[^"\\\n]|\\.)*"|'(?:[^'\\\n]|\\.)*'|[\p{L}\p{N}_$]+|[()[\]{},;:]|[^\s\p{L}\p{N}_$()[\]{},;:]+/gu;

function tokensOf(code: string): Token[] {
  return [...code.matchAll(TOKEN)].map((m) => ({ text: m[0], start: m.index, end: m.index + m[0].length }));
}

/** The text between two kept ranges, old against new. */
class Gap {
  readonly #tree: SyntaxTree;
  readonly #start: number;
  readonly #end: number;
  readonly #new: string;
  readonly #carried: string[];
  readonly #comments: { readonly start: number; readonly end: number }[];

  constructor(tree: SyntaxTree, start: number, end: number, put: string, carried: string[]) {
    this.#tree = tree;
    this.#start = start;
    this.#end = end;
    this.#new = lineEnd(tree.text) === "\n" ? put : put.replace(/\r?\n/g, "\r\n");
    this.#carried = carried;
    this.#comments = tree.commentsIn(start, end).map((n) => ({ start: tree.starts[n]!, end: tree.ends[n]! }));
  }

  edits(): Edit[] {
    const old = this.#oldTokens();
    const now = tokensOf(this.#new);
    const edits: Edit[] = [];
    let oldAt = this.#start;
    let newAt = 0;
    let o = 0;
    let n = 0;
    const stretch = (oldEnd: number, newEnd: number, changed: boolean): void => {
      const put = this.#new.slice(newAt, newEnd);
      const edit = changed ? this.#replace(oldAt, oldEnd, put) : this.#blank(oldAt, oldEnd, put);
      const small = edit && trimmed(this.#tree.text, edit);
      if (small) edits.push(small);
    };
    for (const [a, b] of common(old, now)) {
      stretch(old[a]!.start, now[b]!.start, a > o || b > n);
      oldAt = old[a]!.end;
      newAt = now[b]!.end;
      o = a + 1;
      n = b + 1;
    }
    stretch(this.#end, this.#new.length, o < old.length || n < now.length);
    return edits;
  }

  #oldTokens(): Token[] {
    let code = this.#tree.text.slice(this.#start, this.#end);
    for (const c of this.#comments) {
      const from = c.start - this.#start;
      const to = c.end - this.#start;
      code = code.slice(0, from) + " ".repeat(to - from) + code.slice(to);
    }
    return tokensOf(code).map((t) => ({
      text: t.text,
      start: t.start + this.#start,
      end: t.end + this.#start,
    }));
  }

  /** White space between tokens that both sides have: the old one stays, but for a new line's indentation. */
  #blank(start: number, end: number, put: string): Edit | undefined {
    const old = this.#tree.text.slice(start, end);
    const newLine = put.lastIndexOf("\n");
    if (newLine < 0) return undefined;
    const oldLine = old.lastIndexOf("\n");
    if (oldLine < 0) return undefined;
    const indentAt = start + oldLine + 1;
    const blankEnd = /^[ \t]*/.exec(old.slice(oldLine + 1))![0].length;
    return { start: indentAt, end: indentAt + blankEnd, text: put.slice(newLine + 1) };
  }

  /** Old tokens give way to new ones. */
  #replace(start: number, end: number, put: string): Edit {
    const inside = this.#comments.filter((c) => c.start >= start && c.end <= end);
    if (inside.length === 0) return { start, end, text: put };
    const { text, language } = this.#tree;
    if (language.lineBreaksMatter) {
      let line = put;
      for (const c of inside) {
        const comment = text.slice(c.start, c.end).trimEnd();
        const breaks = line.indexOf("\n");
        if (breaks < 0 || this.#tree.firstOnLine(c.start) === c.start) this.#carried.push(comment);
        else line = `${line.slice(0, breaks).trimEnd()}  ${comment}${line.slice(lineBreakAt(line, breaks))}`;
      }
      return { start, end, text: line };
    }
    // The comments stay in their order where they were. The new code comes where the last old token was.
    const lastToken = this.#oldTokens().findLast((token) => token.end <= end)?.end ?? start;
    const before = inside.filter((c) => c.start < lastToken);
    let result = "";
    for (const c of before) {
      const blank = /\s*$/.exec(text.slice(start, c.start))![0];
      const comment = text.slice(c.start, c.end);
      result += (blank || " ") + comment;
      if (!comment.startsWith(language.lineComment)) continue;
      result += /^\s*/.exec(text.slice(c.end, end))![0] || lineEnd(text);
    }
    if (before.length > 0) put = (/\s$/.test(result) ? "" : " ") + put.trimStart();
    const rest = before.length < inside.length ? text.slice(lastToken, end) : "";
    return { start, end, text: result + (rest === "" ? put : put.trimEnd() + rest) };
  }
}

function lineBreakAt(code: string, newLine: number): number {
  return code[newLine - 1] === "\r" ? newLine - 1 : newLine;
}

/** Index pairs of a longest common subsequence of two token lists. */
function common(a: readonly Token[], b: readonly Token[]): [number, number][] {
  const width = b.length + 1;
  const table = new Uint32Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--) {
    for (let j = b.length - 1; j >= 0; j--) {
      table[i * width + j] =
        a[i]!.text === b[j]!.text
          ? table[(i + 1) * width + j + 1]! + 1
          : Math.max(table[(i + 1) * width + j]!, table[i * width + j + 1]!);
    }
  }
  const pairs: [number, number][] = [];
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    if (a[i]!.text === b[j]!.text) pairs.push([i++, j++]);
    else if (table[(i + 1) * width + j]! >= table[i * width + j + 1]!) i++;
    else j++;
  }
  return pairs;
}
