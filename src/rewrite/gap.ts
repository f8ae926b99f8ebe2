import type { SyntaxTree } from "../syntax/index.js";
import { OpenBrackets } from "./brackets.js";
import { trimmed, type Edit } from "./edits.js";
import { indentUnit, lineEnd } from "./indent.js";
import type { Segment } from "./segment.js";
import { areWords, commonEnds, oneForOne, tokensOf, type Token } from "./tokens.js";

interface Span {
  readonly start: number;
  readonly end: number;
}

/** Where a gap lies and what comes into it. */
export interface GapPlace {
  readonly start: number;
  readonly end: number;
  /** The new text. */
  readonly put: string;
  /** Line ends in the new text, by their number, that must come out whatever stood there. */
  readonly ownLines: readonly number[];
  /** Start of the matched code. */
  readonly base: number;
  /** Takes the comments that find no place here. */
  readonly carried: string[];
  /** Segments that are copied to another place. */
  readonly moved: readonly Segment[];
  /** Do comments that would break a line in two go above the statement? */
  readonly isStatement: boolean;
  /** Is there a range on this side that stays as it is? */
  readonly keptBefore: boolean;
  readonly keptAfter: boolean;
  /** Brackets left open by the gaps before this one, in the old code and in the new. */
  readonly brackets: { readonly before: OpenBrackets; readonly after: OpenBrackets };
}

/** The text between two kept ranges, old against new. */
export class Gap {
  readonly #tree: SyntaxTree;
  readonly #start: number;
  readonly #end: number;
  readonly #new: string;
  readonly #ownLines: readonly number[];
  readonly #carried: string[];
  readonly #isStatement: boolean;
  readonly #keptBefore: boolean;
  readonly #base: number;
  readonly #keptAfter: boolean;
  readonly #brackets: GapPlace["brackets"];
  readonly #comments: readonly Span[];
  /** Ranges that are copied to another place, with the comments in them. */
  readonly #moved: readonly Span[];

  constructor(
    tree: SyntaxTree,
    {
      start,
      end,
      put,
      ownLines,
      base,
      carried,
      moved,
      isStatement,
      keptBefore,
      keptAfter,
      brackets,
    }: GapPlace,
  ) {
    this.#tree = tree;
    this.#start = start;
    this.#end = end;
    this.#new = lineEnd(tree.text) === "\n" ? put : put.replace(/\r?\n/g, "\r\n");
    this.#ownLines = ownLines;
    this.#carried = carried;
    this.#isStatement = isStatement;
    this.#keptBefore = keptBefore;
    this.#base = base;
    this.#keptAfter = keptAfter;
    this.#brackets = brackets;
    this.#moved = moved.flatMap((segment) => ("text" in segment ? [] : [segment]));
    this.#comments = tree.commentsIn(start, end).map((n) => ({ start: tree.starts[n]!, end: tree.ends[n]! }));
  }

  edits(): Edit[] {
    const old = this.#oldTokens();
    const now = this.#cut(this.#new);
    const edits: Edit[] = [];
    let oldAt = this.#start;
    let newAt = 0;
    let o = 0;
    let n = 0;
    const stretch = (oldEnd: number, newEnd: number, changed: boolean): void => {
      const put = this.#new.slice(newAt, newEnd);
      const inserted = changed ? this.#insert(old, oldAt, oldEnd, put) : undefined;
      if (inserted) return void edits.push(inserted);
      const isMirrored = areOpposite(this.#tree.text.slice(oldAt, oldEnd), put);
      const inPlace =
        changed && !isMirrored ? oneForOne(this.#tokensIn(old, oldAt, oldEnd), this.#cut(put)) : undefined;
      const edit = changed
        ? this.#replaced(old, oldAt, oldEnd, put)
        : this.#blank(oldAt, oldEnd, put, lineEndsIn(this.#new.slice(0, newAt)));
      for (const each of inPlace ?? (edit ? [edit] : [])) {
        const small = trimmed(this.#tree.text, each);
        if (small) edits.push(small);
      }
    };
    for (const [a, b] of this.#alignment(old, now)) {
      stretch(old[a]!.start, now[b]!.start, a > o || b > n);
      oldAt = old[a]!.end;
      newAt = now[b]!.end;
      o = a + 1;
      n = b + 1;
    }
    stretch(this.#end, this.#new.length, o < old.length || n < now.length);
    return edits;
  }

  /** Pairs of tokens that stay: at both ends, taking that end first which leaves closing brackets to their own. */
  #alignment(old: readonly Token[], now: readonly Token[]): [number, number][] {
    const { before, after } = this.#brackets;
    const choices = [true, false].map((endFirst) => {
      const pairs = commonEnds(old, now, endFirst, this.#tree.language.ignoresCase === "everywhere");
      const oldFates = old.map(({ text }, i) => ({ text, stays: pairs.some(([a]) => a === i) }));
      const newFates = now.map(({ text }, i) => ({ text, stays: pairs.some(([, b]) => b === i) }));
      const agreeing = before.copy().take(oldFates) + after.copy().take(newFates);
      return { pairs, oldFates, newFates, agreeing };
    });
    const [endFirst, startFirst] = choices as [(typeof choices)[0], (typeof choices)[0]];
    // What brackets do not tell: words such as `end` close what is nearest, all else encloses it.
    const isTrailing = this.#keptBefore && !this.#keptAfter && !/^\w/.test(old[0]?.text ?? "");
    const prefersEnd = endFirst.agreeing - startFirst.agreeing || (isTrailing ? 1 : -1);
    const best = prefersEnd > 0 ? endFirst : startFirst;
    before.take(best.oldFates);
    after.take(best.newFates);
    return best.pairs;
  }

  #tokensIn(tokens: readonly Token[], start: number, end: number): Token[] {
    return tokens.filter((token) => token.start >= start && token.end <= end);
  }

  #cut(code: string): Token[] {
    return tokensOf(code, { hasHyphens: this.#tree.language.namesHaveHyphens });
  }

  #oldTokens(): Token[] {
    let code = this.#tree.text.slice(this.#start, this.#end);
    for (const c of this.#comments) {
      const from = c.start - this.#start;
      const to = c.end - this.#start;
      code = code.slice(0, from) + " ".repeat(to - from) + code.slice(to);
    }
    return this.#cut(code).map((t) => ({
      text: t.text,
      start: t.start + this.#start,
      end: t.end + this.#start,
    }));
  }

  /**
   * New code where there was only white space, a comment, or a comma that may stand there or not: those stay on
   * the side that the new code does not touch.
   */
  #insert(old: readonly Token[], start: number, end: number, put: string): Edit | undefined {
    if (start === end || put.trim() === "" || /^\s/.test(put)) return undefined;
    const tokens = this.#tokensIn(old, start, end);
    // What comes ahead of an item leaves the white space behind the bracket or the comma to the file.
    const isAhead = /[[({,]/.test(this.#tree.text[start - 1] ?? "") && end === this.#end && this.#keptAfter;
    if (/\s$/.test(put)) return tokens.length === 0 && isAhead ? { start: end, end, text: put } : undefined;
    const isOptional = tokens.length === 1 && this.#mayBeLeftOut(tokens[0]!);
    if (tokens.length > 0 && !isOptional) return undefined;
    if (start === this.#start && end === this.#end && this.#keptBefore && this.#keptAfter) return undefined;
    if (end === this.#end && this.#keptAfter && tokens.length === 0) return { start: end, end, text: put };
    if (start === this.#start && this.#keptBefore) return { start, end: start, text: put };
    return undefined;
  }

  #mayBeLeftOut({ start, end, text }: Token): boolean {
    const list = this.#tree.nodeAt(start, end).parent;
    return (list && this.#tree.language.optionalTokens[list.kind]?.includes(text)) ?? false;
  }

  /** White space between tokens that both sides have: the old one stays, but for a new line's indentation. */
  #blank(start: number, end: number, put: string, lineEnds: number): Edit | undefined {
    const old = this.#tree.text.slice(start, end);
    const newLine = put.lastIndexOf("\n");
    if (newLine < 0) return this.#endsStatement(start, end) ? { start, end, text: put } : undefined;
    const oldLine = old.lastIndexOf("\n");
    if (oldLine < 0) return this.#ownLines.includes(lineEnds) ? { start, end, text: put } : undefined;
    const indentAt = start + oldLine + 1;
    const blankEnd = /^[ \t]*/.exec(old.slice(oldLine + 1))![0].length;
    if (end < this.#end && !this.#isRegular(old.slice(oldLine + 1))) return undefined;
    return { start: indentAt, end: indentAt + blankEnd, text: put.slice(newLine + 1) };
  }

  /** Is white space the line end between two statements, which are one in the new code? */
  #endsStatement(start: number, end: number): boolean {
    const { text, language } = this.#tree;
    if (!language.lineBreaksMatter || !text.slice(start, end).includes("\n")) return false;
    return this.#tree.nodeAt(start - 1, end + 1).is(language.statementLists);
  }

  /** Is a line indented by whole steps? One that is not was put where it is on purpose, and stays there. */
  #isRegular(indent: string): boolean {
    const base = this.#tree.indentAt(this.#base);
    const unit = indentUnit(this.#tree, base);
    if (!indent.startsWith(base)) return false;
    return indent.slice(base.length).replaceAll(unit, "") === "";
  }

  /**
   * Old tokens give way to new ones. The white space ahead of them belongs to the file where one word takes the place of
   * another, and behind a comma.
   */
  #replaced(old: readonly Token[], start: number, end: number, put: string): Edit {
    const tokens = this.#tokensIn(old, start, end);
    const now = this.#cut(put);
    const [first] = tokens;
    const isItem = this.#tree.text[start - 1] === "," && now.length > 0;
    const keepsBlank = first && !/^\s*\n/.test(put) && (areWords(tokens, now) || isItem);
    return keepsBlank ? this.#replace(first.start, end, put.trimStart()) : this.#replace(start, end, put);
  }

  #replace(start: number, end: number, put: string): Edit {
    const goes = (c: Span): boolean => this.#moved.some((m) => c.start >= m.start && c.end <= m.end);
    const inside = this.#comments.filter((c) => c.start >= start && c.end <= end && !goes(c));
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
      else line = `${line.trimEnd()}${text.slice(blanksBefore(text, c.start), c.start)}${comment}`;
    }
    if (!breaks) return line;
    const blank = /\s*$/.exec(text.slice(start, end))![0];
    return line + (blank.includes("\n") ? blank.replace(/[ \t]*$/, breaks[2]!) : breaks[0]);
  }

  /** Where lines do not matter: comments stay where they were; the new code comes where the last old token was. */
  #inPlace(start: number, end: number, put: string, comments: readonly Span[]): string {
    if (comments.length === 0) return put;
    const { text, language } = this.#tree;
    const endsLine = (c: Span): boolean =>
      language.lineComments.some((mark) => text.startsWith(mark, c.start));
    // New code that begins in this line keeps it, also where it goes on in lines of its own.
    const isOneLine = !put.includes("\n") || (this.#ownLines.length > 0 && !/^\s*\n/.test(put));
    const breaksLine = this.#isStatement && isOneLine && comments.some(endsLine);
    const isFirst = this.#tree.firstOnLine(this.#base) === this.#base;
    const goesAbove = isFirst && ((start === this.#base && put === "") || (breaksLine && this.#keptAfter));
    if (goesAbove) {
      this.#carried.push(...comments.map((c) => text.slice(c.start, c.end).trimEnd()));
      return put;
    }
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
      // The line that is left over ends it.
      const isLast = c === before.at(-1) && put.trim() === "" && end === this.#end && !this.#keptAfter;
      if (isLast && endsLineAt(text, end)) continue;
      result += /^\s*/.exec(text.slice(c.end, end))![0] || lineEnd(text);
    }
    if (before.length > 0 && put.trim() !== "") put = (/\s$/.test(result) ? "" : " ") + put.trimStart();
    const rest = before.length < comments.length ? text.slice(lastToken, end) : "";
    return result + (rest === "" ? put : put.trimEnd() + rest);
  }
}

/** How many line ends there are in a text. */
export const lineEndsIn = (text: string): number => text.split("\n").length - 1;

/** Does one have its white space before, and the other behind, as `Hive *` and `Hive> ` do? */
function areOpposite(old: string, put: string): boolean {
  const [one, other] = [isOneSided(old), isOneSided(put)];
  return one !== undefined && other !== undefined && one !== other;
}

/** On which side only there is white space; undefined where both sides have it, or neither. */
function isOneSided(text: string): "before" | "after" | undefined {
  const before = /^\s/.test(text);
  if (before === /\s$/.test(text)) return undefined;
  return before ? "before" : "after";
}

/** Is the rest of the line behind an offset blank? */
function endsLineAt(text: string, offset: number): boolean {
  while (text[offset] === " " || text[offset] === "\t" || text[offset] === "\r") offset++;
  return offset >= text.length || text[offset] === "\n";
}

/** Where the blanks right before an offset begin. */
function blanksBefore(text: string, offset: number): number {
  while (text[offset - 1] === " " || text[offset - 1] === "\t") offset--;
  return offset;
}
