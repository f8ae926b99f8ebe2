import type { SyntaxTree } from "../syntax/index.js";
import { trimmed, type Edit } from "./edits.js";
import { lineEnd } from "./indent.js";
import { commonEnds, tokensOf, type Token } from "./tokens.js";

interface Span {
  readonly start: number;
  readonly end: number;
}

/** The text between two kept ranges, old against new. */
export class Gap {
  readonly #tree: SyntaxTree;
  readonly #start: number;
  readonly #end: number;
  readonly #new: string;
  readonly #carried: string[];
  readonly #comments: readonly Span[];

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
    for (const [a, b] of commonEnds(old, now)) {
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
    const place = this.#tree.language.lineBreaksMatter ? this.#onLines : this.#inPlace;
    return { start, end, text: place.call(this, start, end, put, inside) };
  }

  /** End of the last old token or comment in a stretch. */
  #lastCode(start: number, end: number, comments: readonly Span[]): number {
    const token = this.#oldTokens().findLast((t) => t.start >= start && t.end <= end)?.end ?? start;
    return Math.max(token, ...comments.map((c) => c.end));
  }

  /**
   * Where lines matter: a comment behind old code stays at the end of the new line, if that line ends here;
   * others are carried above. Blank lines stay.
   */
  #onLines(start: number, end: number, put: string, comments: readonly Span[]): string {
    const { text } = this.#tree;
    const breaks = /(\r?\n)([ \t]*)$/.exec(put);
    let line = breaks ? put.slice(0, breaks.index) : put;
    for (const c of comments) {
      const comment = text.slice(c.start, c.end).trimEnd();
      if (!breaks || this.#tree.firstOnLine(c.start) === c.start) this.#carried.push(comment);
      else line = `${line.trimEnd()}${/[ \t]*$/.exec(text.slice(0, c.start))![0]}${comment}`;
    }
    if (!breaks) return line;
    const blank = /\s*$/.exec(text.slice(start, end))![0];
    return line + (blank.includes("\n") ? blank.replace(/[ \t]*$/, breaks[2]!) : breaks[0]);
  }

  /** Where lines do not matter: comments stay where they were; the new code comes where the last old token was. */
  #inPlace(start: number, end: number, put: string, comments: readonly Span[]): string {
    if (comments.length === 0) return put;
    const { text, language } = this.#tree;
    const lastToken = this.#lastCode(start, end, []);
    const before = comments.filter((c) => c.start < lastToken);
    let result = "";
    for (const c of before) {
      const old = text.slice(start, c.start);
      const ahead = /^\s*/.exec(old)![0];
      let blank = /\s*$/.exec(old)![0];
      if (result === "" && ahead.includes("\n")) blank = ahead;
      else if (result === "" && /^$|\s/.test(text.slice(start - 1, start))) blank = "";
      else if (blank === "") blank = " ";
      result += blank + text.slice(c.start, c.end);
      if (!language.lineComments.some((mark) => text.startsWith(mark, c.start))) continue;
      result += /^\s*/.exec(text.slice(c.end, end))![0] || lineEnd(text);
    }
    if (before.length > 0 && put.trim() !== "") put = (/\s$/.test(result) ? "" : " ") + put.trimStart();
    const rest = before.length < comments.length ? text.slice(lastToken, end) : "";
    return result + (rest === "" ? put : put.trimEnd() + rest);
  }
}
