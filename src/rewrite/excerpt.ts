import {
  oncePerTree,
  parse,
  parseFile,
  type NodeId,
  type SyntaxNode,
  type SyntaxTree,
} from "../syntax/index.js";
import { applyEdits, type Edit } from "./edits.js";

/** Of how many surrounding lists of statements a part is tried before the whole file is taken. */
const MOST_LEVELS = 4;

/**
 * Whole lines of a file that read alone as they do in their place. What becomes of a few lines can be looked at in them,
 * without reading all of a long file again.
 */
export class Excerpt {
  private constructor(
    /** First offset of the lines in the file. */
    readonly start: number,
    /** Offset behind the last. */
    readonly end: number,
    private readonly before: string,
    /** The lines, read in surroundings of their own. */
    readonly tree: SyntaxTree,
    private readonly isFile = false,
  ) {}

  /** What leads from an offset of the file to the same place in the excerpt. */
  get shift(): number {
    return this.before.length - this.start;
  }

  /** The lines with edits made, which are in offsets of the file and must lie in them. */
  edited(edits: readonly Edit[]): SyntaxTree {
    const text = applyEdits(this.tree.text, this.moved(edits));
    return (this.isFile ? parseFile : parse)(text, this.tree.language);
  }

  /** Edits of the file as edits of the excerpt's text. */
  moved(edits: readonly Edit[]): Edit[] {
    const { shift } = this;
    return edits.map(({ start, end, text }) => ({ start: start + shift, end: end + shift, text }));
  }

  /** The smallest lines around a range of a file that read alone as they do there; the whole file where there are none. */
  static around(tree: SyntaxTree, start: number, end: number): Excerpt {
    let levels = 0;
    let at: SyntaxNode | undefined = tree.nodeAt(start, end);
    for (; at && levels < MOST_LEVELS; at = at.parent) {
      if (!at.is(tree.language.statementLists) && !at.is(tree.language.memberLists)) continue;
      const lines = linesOf(at, start, end);
      if (!lines) continue;
      levels++;
      const key = `${lines.start} ${lines.end}`;
      const known = excerpts(tree);
      if (!known.has(key)) known.set(key, Excerpt.#read(tree, lines));
      const found = known.get(key);
      if (found) return found;
    }
    return new Excerpt(0, tree.text.length, "", tree, true);
  }

  static #read(tree: SyntaxTree, { start, end, first, last }: Lines): Excerpt | undefined {
    const { contexts, nested } = tree.language;
    const text = tree.text.slice(start, end);
    const isIndented = /^[ \t]/.test(text);
    const surroundings =
      nested !== undefined && isIndented
        ? [{ before: nested, after: "" }]
        : contexts.filter(({ name }) => name === "statement" || name === "member" || name === "file");
    for (const { before, after } of surroundings) {
      const alone = parse(before + text + after, tree.language);
      if (alone.errors.length === 0 && isSame(tree, first, last, alone, before.length - start))
        return new Excerpt(start, end, before, alone);
    }
    return undefined;
  }
}

const excerpts = oncePerTree(() => new Map<string, Excerpt | undefined>());

interface Lines {
  readonly start: number;
  readonly end: number;
  readonly first: NodeId;
  /** The first node behind the lines. */
  readonly last: NodeId;
}

/** The members of a list that a range touches, with those that share its lines; undefined where others do too. */
function linesOf(list: SyntaxNode, from: number, to: number): Lines | undefined {
  const { tree } = list;
  const { text, starts, ends } = tree;
  const members = tree.children(list.id).filter((n) => starts[n]! < ends[n]!);
  let i = members.findIndex((n) => ends[n]! >= from);
  if (i < 0) return undefined;
  let j = i;
  while (j + 1 < members.length && starts[members[j + 1]!]! <= to) j++;
  const lineOf = (offset: number): number => tree.lineAt(offset);
  while (i > 0 && lineOf(ends[members[i - 1]!]!) === lineOf(starts[members[i]!]!)) i--;
  while (j + 1 < members.length && lineOf(starts[members[j + 1]!]!) === lineOf(ends[members[j]!]!)) j++;
  const first = members[i]!;
  const start = tree.lineStart(lineOf(starts[first]!));
  if (text.slice(start, starts[first]).trim() !== "" || start > from) return undefined;
  const lastEnd = ends[members[j]!]!;
  const next = text.indexOf("\n", Math.max(lastEnd - 1, start));
  const end = next < 0 ? text.length : next + 1;
  if (text.slice(lastEnd, end).trim() !== "" || end < to) return undefined;
  return { start, end, first, last: tree.after[members[j]!]! };
}

/** Are the nodes of both trees the same from `first` on, but for where they stand? */
function isSame(tree: SyntaxTree, first: NodeId, last: NodeId, alone: SyntaxTree, shift: number): boolean {
  const start = tree.starts[first]! + shift;
  let at = 0;
  while (at < alone.size && !(alone.starts[at] === start && alone.kindIds[at] === tree.kindIds[first])) at++;
  for (let n = first; n < last; n++, at++) {
    const isOne =
      alone.kindIds[at] === tree.kindIds[n] &&
      alone.starts[at] === tree.starts[n]! + shift &&
      alone.ends[at] === tree.ends[n]! + shift;
    if (!isOne) return false;
  }
  return true;
}
