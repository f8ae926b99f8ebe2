import {
  FreshName,
  Hole,
  linesOf,
  matchesIn,
  Maybe,
  Need,
  Replacing,
  resolved,
  snippetFits,
  textOfCapture,
  type Capture,
  type CompiledPattern,
  type Part,
  type PatternMatch,
  Snippet,
  type Piece,
} from "../pattern/index.js";
import { compile } from "../pattern/index.js";
import type { Import, SyntaxTree } from "../syntax/index.js";
import { Between, partBeside } from "./between.js";
import { sorted, type Edit } from "./edits.js";
import { closedUp, type Items } from "./empty-lists.js";
import { singular, type FreshNames } from "./fresh-names.js";
import { nameFor } from "./imports/index.js";
import { indentUnit, reindent, shifted } from "./indent.js";
import { fitsInPlace, partsInParentheses } from "./parentheses.js";
import { copy, segmentText, text, type Segment } from "./segment.js";
import { misread } from "./misread.js";
import { CannotRewrite } from "./settle.js";

/** What a replacement needs beside itself. */
export interface RenderPlace {
  readonly match: PatternMatch;
  readonly names: FreshNames;
  /** The new code stands as deep as the code at this offset; at the match where it is left out. */
  readonly at?: number;
}

/** A replacement with its holes filled by what the match captured, and what it needs from elsewhere. */
export function render(snippet: Snippet, place: RenderPlace): { segments: Segment[]; needs: Import[] } {
  const renderer = new Renderer(snippet, place);
  return { segments: renderer.segments(), needs: renderer.needs };
}

class Renderer {
  readonly #snippet: Snippet;
  readonly #match: PatternMatch;
  readonly #tree: SyntaxTree;
  readonly #names: FreshNames;
  readonly #at: number;
  readonly #fresh = new Map<FreshName, string>();
  readonly needs: Import[] = [];

  constructor(snippet: Snippet, { match, names, at = match.start }: RenderPlace) {
    if (!snippetFits(snippet, match.tree.language.id)) {
      throw new TypeError(
        `A replacement in ${snippet.language} cannot stand in a file in ${match.tree.language.title}.`,
      );
    }
    this.#snippet = resolved(snippet, (hole) => {
      const capture = match.captures.get(hole);
      return capture !== undefined && (capture.nodes.length > 0 || hole.kind !== "modifiers");
    });
    this.#match = match;
    this.#tree = match.tree;
    this.#names = names;
    this.#at = at;
  }

  segments(): Segment[] {
    const between = new Between(this.#match);
    const segments = this.#segments(between);
    if (!between.isTorn) return segments;
    between.takesOther = false;
    this.needs.length = 0;
    return this.#segments(between);
  }

  #segments(between: Between): Segment[] {
    const base = this.#tree.indentAt(this.#at);
    const unit = indentUnit(this.#tree, base);
    const wrapped = this.#parenthesised();
    const result: Segment[] = [];
    const lines = linesOf(this.#snippet);
    lines.forEach(({ level, items: all }, i) => {
      const items = closedUp(all, (part) => this.#isEmptyList(part));
      const indent = this.#ownIndent(level, items, base, unit) ?? base + unit.repeat(level);
      if (i > 0) result.push(text("\n" + this.#leading(items, indent)));
      for (const [k, item] of items.entries()) {
        if (typeof item === "string") {
          const left = partBeside(this.#snippet, items[k - 1], i === 0);
          const right = partBeside(this.#snippet, items[k + 1], i === lines.length - 1);
          const same = between.find(item, left, right);
          if (same) result.push(copy(same.start, same.end));
          else result.push(text(between.inPlaceOf(item, left, right) ?? item));
        } else if (wrapped.has(item)) result.push(text("("), ...this.#part(item, indent), text(")"));
        else result.push(...this.#part(item, this.#inLine(level, items, base, unit) ?? indent));
      }
    });
    return result;
  }

  #isEmptyList(number: number): boolean {
    const part = this.#snippet.parts[number];
    const hole = part instanceof Replacing ? part.hole : part;
    return hole instanceof Hole && hole.isList && this.#match.captures.get(hole)?.nodes.length === 0;
  }

  /** The indentation of a line of the replacement; a comment before statements keeps its distance from them. */
  #leading(items: Items, indent: string): string {
    const hole = this.#statementsIn(items)?.hole;
    if (!hole) return indent;
    const capture = this.#capture(hole);
    if (capture.tree !== this.#tree) return indent;
    const { start } = withComments(this.#match, capture);
    if (start === capture.start) return indent;
    return shifted(this.#tree.indentAt(start), this.#tree.indentAt(capture.start), indent);
  }

  /**
   * The indentation of statements that have a line of the replacement to themselves: as deep as they were, and
   * deeper or less deep by as many steps as the replacement differs from the pattern.
   */
  #ownIndent(level: number, items: Items, base: string, unit: string): string | undefined {
    const found = level === 0 ? undefined : this.#statementsIn(items);
    if (!found || this.#tree.firstOnLine(found.start) !== found.start) return undefined;
    return this.#deeper(found.start, level - found.level, base, unit);
  }

  /** The same for statements that share their line with the braces around them, and go on doing so. */
  #inLine(level: number, items: Items, base: string, unit: string): string | undefined {
    const found = this.#statementsIn(items);
    if (!found?.isAlone || this.#tree.firstOnLine(found.start) === found.start) return undefined;
    return this.#deeper(found.start, level - found.level, base, unit);
  }

  /** The statements that a line consists of: where they are in the file, and how deep in the pattern. */
  #statementsIn(items: Items): { hole: Hole; start: number; level: number; isAlone: boolean } | undefined {
    const [only] = items;
    const part = items.length === 1 && typeof only === "number" ? this.#snippet.parts[only] : undefined;
    const hole = part instanceof Replacing ? part.hole : part;
    if (!(hole instanceof Hole) || !isOfStatements(hole)) return undefined;
    const { snippet } = this.#match.pattern ?? {};
    if (!snippet) return undefined;
    const line = linesOf(snippet).find((each) =>
      each.items.some((item) => typeof item === "number" && snippet.parts[item] === hole),
    );
    const { start, nodes, tree } = this.#capture(hole);
    if (!line || nodes.length === 0 || tree !== this.#tree) return undefined;
    return { hole, start, level: line.level, isAlone: line.items.length === 1 };
  }

  #deeper(start: number, steps: number, base: string, unit: string): string | undefined {
    const own = this.#tree.indentAt(start);
    if (steps === 0) return own;
    if (!own.startsWith(base)) return undefined;
    const rest = own.slice(base.length);
    if (steps > 0) return base + unit.repeat(steps) + rest;
    const less = unit.repeat(-steps);
    return rest.startsWith(less) ? base + rest.slice(less.length) : undefined;
  }

  #capture(hole: Hole): Capture {
    const capture = this.#match.captures.get(hole);
    if (!capture) throw new TypeError(`The hole "${hole.name}" is not in the pattern that matched.`);
    return capture;
  }

  #parenthesised(): Set<number> {
    const texts = new Map<number, string>();
    const groupsTypes = this.#tree.language.types.values?.grouped !== undefined;
    this.#snippet.parts.forEach((part, i) => {
      if (!(part instanceof Hole)) return;
      if (part.kind !== "expression" && !(part.kind === "type" && groupsTypes)) return;
      texts.set(i, textOfCapture(this.#capture(part)));
    });
    return partsInParentheses(this.#snippet, this.#tree.language.id, texts);
  }

  #part(number: number, indent: string): Segment[] {
    const part = this.#snippet.parts[number]!;
    // What the old code names already is named in the same way.
    const known = part instanceof Need ? this.#match.captures.get(part.hole) : undefined;
    if (known?.tree === this.#tree) return [copy(known.start, known.end, [])];
    if (part instanceof FreshName || part instanceof Need) return [text(this.#textOf(part))];
    if (part instanceof Maybe) throw new TypeError("an optional part was not resolved");
    const hole = part instanceof Replacing ? part.hole : part;
    const capture = this.#capture(hole);
    const inner = part instanceof Replacing ? this.#replaced(part, capture) : [];
    if (capture.tree !== this.#tree) return [text(this.#fromElsewhere(capture, inner, indent))];
    if (!isOfStatements(hole)) {
      const made = copy(capture.start, capture.end, inner);
      return inner.length === 0 && capture.again && this.#match.isStatements
        ? [{ ...made, again: capture.again }]
        : [made];
    }
    if (capture.nodes.length === 0)
      throw new CannotRewrite("edit.no-room", `there is nothing to put into \`${hole.name}\``);
    const pieces = capture.pieces ?? [
      { nodes: capture.nodes, start: capture.start, end: capture.end, edits: inner },
    ];
    let before: number | undefined;
    return pieces.flatMap((piece, i) => {
      const own = { ...piece, tree: this.#tree };
      const { start, end } = withComments(this.#match, own, i < pieces.length - 1 ? "same line" : "all");
      const moved = reindent(this.#tree, start, end, this.#tree.indentAt(piece.start), indent);
      const isGone = (edit: Edit): boolean => {
        const line = this.#tree.lineStart(this.#tree.lineAt(edit.start));
        return piece.edits.some(
          (one) => edit.end <= one.end && (one.text === "" ? one.start <= line : one.start < edit.start),
        );
      };
      const made = copy(start, end, sorted([...piece.edits, ...moved.filter((edit) => !isGone(edit))]));
      const apart = before === undefined ? [] : [this.#apart(before, start, indent)];
      before = end;
      return [...apart, made];
    });
  }

  /** What parts two runs of statements: a line end, and a blank line where there was one. */
  #apart(end: number, start: number, indent: string): Segment {
    const isBlank = /\n[ \t]*\r?\n/.test(this.#tree.text.slice(end, start));
    return text(`${isBlank ? "\n" : ""}\n${indent}`);
  }

  #textOf(part: Part): string {
    if (part instanceof FreshName) {
      let name = this.#fresh.get(part);
      if (name === undefined) {
        const plural = part.singularOf && this.#capture(part.singularOf);
        const wish = plural && singular(textOfCapture(plural));
        const wishes = [...(wish ? [wish] : []), part.base, ...part.or];
        name = this.#names.choose(wishes, this.#match.start, this.#match.end);
        this.#fresh.set(part, name);
      }
      return name;
    }
    if (part instanceof Need) {
      const { start, end } = this.#match;
      const { text: name, needs } = nameFor(this.#tree, part.wanted, this.#names, start, end);
      if (needs) this.needs.push(needs);
      return name;
    }
    if (part instanceof Maybe) throw new TypeError("an optional part cannot be put in one place");
    const hole = part instanceof Replacing ? part.hole : part;
    return textOfCapture(this.#capture(hole));
  }

  /** Code of another file that a hole stands for, with inner places replaced, as new text. */
  #fromElsewhere({ tree, start, end }: Capture, inner: readonly Edit[], indent: string): string {
    const moved = reindent(tree, start, end, tree.indentAt(start), indent);
    return segmentText(tree, copy(start, end, sorted([...inner, ...moved])));
  }

  /** Edits for the places inside a capture that fit the inner pattern, whose holes mean what they meant outside. */
  #replaced(part: Replacing, capture: Capture): Edit[] {
    const found = part.pieces.flatMap((piece) =>
      innerMatches(this.#match, compile(piece.pattern, capture.tree.language.id), capture).map((match) => ({
        start: match.start,
        end: match.end,
        text: this.#replacement(piece, match),
      })),
    );
    const outermost = found
      .sort((a, b) => a.start - b.start || b.end - a.end)
      .filter((edit, i, all) => !all.slice(0, i).some((other) => other.end > edit.start));
    return outermost;
  }

  #replacement({ replacement }: Piece, found: PatternMatch): string {
    const own = replacement instanceof Hole ? found.captures.get(replacement) : undefined;
    if (own) return this.#inPlace(found, textOfCapture(own));
    if (!(replacement instanceof Snippet)) return this.#textOf(replacement);
    const captures = new Map([...this.#match.captures, ...found.captures]);
    const inner = render(replacement, { match: { ...found, captures }, names: this.#names });
    this.needs.push(...inner.needs);
    const code = inner.segments.map((segment) => segmentText(found.tree, segment)).join("");
    return found.isStatements ? code : this.#inPlace(found, code);
  }

  /** An expression with the parentheses that it needs where it comes to stand. */
  #inPlace({ tree, nodes }: PatternMatch, code: string): string {
    const node = tree.node(nodes[0]!);
    if (fitsInPlace(node, code)) return code;
    if (fitsInPlace(node, `(${code})`)) return `(${code})`;
    throw misread(node, code);
  }
}

/** Where a pattern fits inside a capture, with the outer match's captures in force. Outermost places only. */
function innerMatches(
  outer: PatternMatch,
  patterns: readonly CompiledPattern[],
  capture: Capture,
): PatternMatch[] {
  const found: PatternMatch[] = [];
  for (const n of capture.nodes) {
    for (const match of matchesIn(patterns, capture.tree, n, outer.captures)) {
      if (match.start >= (found.at(-1)?.end ?? 0)) found.push(match);
    }
  }
  return found;
}

/**
 * The range of captured statements with the comments that belong to them: those on lines of their own before
 * the first, and all that follow the last in the same block, or only those on its line.
 */
function withComments(
  match: PatternMatch,
  capture: Capture,
  behind: "all" | "same line" = "all",
): { start: number; end: number } {
  const { tree } = match;
  let { start, end } = capture;
  if (capture.nodes.length === 0) return { start, end };
  for (const n of [...tree.commentsIn(match.start, start)].reverse()) {
    const at = tree.starts[n]!;
    const followed = tree.text.slice(tree.ends[n]!, start);
    if (followed.trim() !== "" || tree.firstOnLine(at) !== at) break;
    start = at;
  }
  const block = tree.parents[capture.nodes.at(-1)!]!;
  for (const n of tree.comments) {
    if (tree.starts[n]! < end || tree.parents[n] !== block) continue;
    if (tree.text.slice(end, tree.starts[n]).trim() !== "") break;
    if (tree.ends[n]! > match.end) break;
    if (behind === "same line" && tree.text.slice(end, tree.starts[n]).includes("\n")) break;
    end = tree.ends[n]!;
  }
  return { start, end };
}

/** Does a hole stand for whole statements, whose lines move with the one that they begin on? */
function isOfStatements({ kind }: Hole): boolean {
  return kind === "statements" || kind === "statement";
}
