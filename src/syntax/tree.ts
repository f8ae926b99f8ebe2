import type { Tree } from "web-tree-sitter";
import type { Language } from "./language.js";
import { collapsed } from "./collapse.js";
import { countLeading } from "./count-leading.js";
import { walkTree } from "./grammars.js";
import type { Mask } from "./masks/mask.js";
import { namesOf, type GrammarNames } from "./grammar-names.js";
import type { NodeId } from "./node-arrays.js";
import { SyntaxNode } from "./node.js";
import type { TextPlace, TextRange } from "./text-range.js";
import { liftSwallowed } from "./walk/lift.js";
import { renameKinds, cutLineEnds, cutBlankEnds, emptyNodes } from "./walk/corrections.js";

/**
 * A syntax tree in typed arrays. Nodes are numbered in document order, so the children of `n` are `n + 1`,
 * then `after[n + 1]`, and so on up to `after[n]`. Offsets are UTF-16 code units into `text`.
 *
 * The arrays are filled by one walk of the parser's own cursor, so they are that tree by construction, but for
 * what the language's facts ask for: chains of nodes that say nothing are collapsed, and kinds that are two
 * names for one thing become one. And where a grammar takes the carriage return of a line end into a comment,
 * it is left out. Nothing of the parser's is held afterwards.
 */
export class SyntaxTree {
  readonly text: string;
  readonly language: Language;
  /** Number of nodes. */
  readonly size: number;
  readonly kindIds: Uint16Array;
  readonly starts: Uint32Array;
  readonly ends: Uint32Array;
  /** For each node the number of the first node after its subtree. */
  readonly after: Uint32Array;
  readonly parents: Int32Array;
  readonly #fieldIds: Uint16Array;
  /** Nodes the parser marks as errors or as missing, and those that must not be empty but are. */
  readonly errors: readonly NodeId[];

  readonly #kindNames: readonly string[];
  readonly #isNamed: readonly boolean[];
  readonly #fieldNames: readonly (string | null)[];
  readonly #layout: GrammarNames["layout"];
  #comments: NodeId[] | undefined;
  #named: Map<string, NodeId[]> | undefined;
  #lineStarts: number[] | undefined;

  /** For `oncePerTree`. */
  readonly workedOut: unknown[] = [];

  /** What was hidden from the parser, in the order of their starts. */
  readonly masks: readonly Mask[];

  constructor(text: string, language: Language, tree: Tree, masks: readonly Mask[] = []) {
    const names = namesOf(language);
    this.text = text;
    this.language = language;
    this.masks = masks;
    this.#kindNames = names.kinds;
    this.#isNamed = names.named;
    this.#fieldNames = names.fields;
    this.#layout = names.layout;

    const { nodes, errors } = walkTree(tree);
    if (names.sameKind) renameKinds(nodes, names.sameKind);
    liftSwallowed(nodes, names);
    if (text.includes("\r\n")) cutLineEnds(text, nodes);
    cutBlankEnds(text, nodes, names);
    const { arrays, moved } = collapsed(nodes, names);
    this.size = arrays.size;
    this.kindIds = arrays.kindIds;
    this.starts = arrays.starts;
    this.ends = arrays.ends;
    this.after = arrays.after;
    this.parents = arrays.parents;
    this.#fieldIds = arrays.fieldIds;
    const empty = names.neverEmpty ? emptyNodes(arrays, names.neverEmpty) : [];
    this.errors = [...errors.map(moved), ...empty].sort((a, b) => a - b);
  }

  /** Name of a node's kind as the grammar gives it; tokens are their own text. */
  kind(n: NodeId): string {
    return this.#kindNames[this.kindIds[n]!] ?? "ERROR";
  }

  /** False for tokens such as `(` and `return`. */
  isNamed(n: NodeId): boolean {
    return this.#isNamed[this.kindIds[n]!] ?? true;
  }

  /** Is a node a comment or nothing but layout, always or where it is blank? */
  layoutOf(n: NodeId): "always" | "when blank" | undefined {
    return this.#layout[this.kindIds[n]!];
  }

  textOf(n: NodeId): string {
    return this.text.slice(this.starts[n], this.ends[n]);
  }

  isLeaf(n: NodeId): boolean {
    return this.after[n] === n + 1;
  }

  children(n: NodeId): NodeId[] {
    const result: NodeId[] = [];
    for (let c = n + 1; c < this.after[n]!; c = this.after[c]!) result.push(c);
    return result;
  }

  /** The grammar's name for what this node is to its parent, or undefined. */
  fieldOf(n: NodeId): string | undefined {
    return this.#fieldNames[this.#fieldIds[n]!] ?? undefined;
  }

  /** All comments in document order. */
  get comments(): readonly NodeId[] {
    if (!this.#comments) {
      const kinds = this.language.comments;
      this.#comments = [];
      for (let n = 0; n < this.size; n++) if (kinds.includes(this.kind(n))) this.#comments.push(n);
    }
    return this.#comments;
  }

  #byKind: Map<number, NodeId[]> | undefined;

  /** The nodes of some kinds in document order. */
  ofKinds(kinds: readonly string[]): NodeId[] {
    if (!this.#byKind) {
      this.#byKind = new Map();
      for (let n = 0; n < this.size; n++) {
        const list = this.#byKind.get(this.kindIds[n]!);
        if (list) list.push(n);
        else this.#byKind.set(this.kindIds[n]!, [n]);
      }
    }
    const lists = [...this.#byKind].filter(([id]) => kinds.includes(this.#kindNames[id] ?? "ERROR"));
    const all = lists.flatMap(([, list]) => list);
    return lists.length > 1 ? all.sort((a, b) => a - b) : all;
  }

  /** The leaves that are this name, as `binding.bare` writes it, in document order. */
  named(name: string): readonly NodeId[] {
    if (!this.#named) {
      this.#named = new Map();
      const { leaves, bare } = this.language.binding;
      for (let n = 0; n < this.size; n++) {
        if (!this.isLeaf(n) || leaves[this.kind(n)] === undefined) continue;
        const text = bare(this.node(n));
        const list = this.#named.get(text);
        if (list) list.push(n);
        else this.#named.set(text, [n]);
      }
    }
    return this.#named.get(name) ?? [];
  }

  /** The names of a file, as `binding.bare` writes them. */
  get names(): string[] {
    this.named("");
    return [...this.#named!.keys()];
  }

  /** The leaves that can name the variable of this name, in document order, from one node up to another. */
  mentions(name: string, from: NodeId = 0, to: NodeId = this.size): readonly NodeId[] {
    const { variables, binding } = this.language;
    const bare = binding.bareText(name);
    const all = this.named(bare);
    const result: NodeId[] = [];
    for (let i = countLeading(all.length, (k) => all[k]! < from); i < all.length && all[i]! < to; i++) {
      const n = all[i]!;
      if (variables.includes(this.kind(n)) && binding.bareText(this.textOf(n)) === bare) result.push(n);
    }
    return result;
  }

  /** The comments that lie wholly inside a range. */
  commentsIn(start: number, end: number): NodeId[] {
    const { comments } = this;
    const result: NodeId[] = [];
    for (
      let i = countLeading(comments.length, (k) => this.starts[comments[k]!]! < start);
      i < comments.length && this.starts[comments[i]!]! <= end;
      i++
    )
      if (this.ends[comments[i]!]! <= end) result.push(comments[i]!);
    return result;
  }

  /** Offset of the first character that is not blank on the line of an offset. */
  firstOnLine(offset: number): number {
    let at = this.lineStart(this.lineAt(offset));
    if (at === 0 && this.text.startsWith("\uFEFF")) at = 1;
    while (at < offset && (this.text[at] === " " || this.text[at] === "\t")) at++;
    return at;
  }

  /** The white space before the first character on the line of an offset. */
  indentAt(offset: number): string {
    const first = this.firstOnLine(offset);
    let at = first;
    while (at > 0 && (this.text[at - 1] === " " || this.text[at - 1] === "\t")) at--;
    return this.text.slice(at, first);
  }

  node(n: NodeId): SyntaxNode {
    return new SyntaxNode(this, n);
  }

  get root(): SyntaxNode {
    return this.node(0);
  }

  /** The first node that starts at an offset or behind it. */
  firstFrom(offset: number): NodeId {
    return countLeading(this.size, (n) => this.starts[n]! < offset);
  }

  /** The innermost node that holds the range. */
  nodeAt(start: number, end = start): SyntaxNode {
    // Nodes come in order of their starts, so the last that starts here or before is in the innermost, or is it.
    let n = Math.max(0, countLeading(this.size, (m) => this.starts[m]! <= start) - 1);
    while (n > 0 && (end > this.ends[n]! || start >= this.ends[n]!)) n = this.parents[n]!;
    return this.node(n);
  }

  #hiddenWords: Map<string, Mask[]> | undefined;

  /** What is hidden of a file and has this word in it; marks, which mean nothing for the code beside them, do not count. */
  hiddenWith(word: string): readonly Mask[] {
    if (this.masks.length === 0) return [];
    if (!this.#hiddenWords) {
      this.#hiddenWords = new Map();
      for (const mask of this.masks.filter(({ isMark }) => !isMark))
        for (const one of new Set(this.text.slice(mask.start, mask.end).match(/[\p{L}\p{N}_]+/gu))) {
          const list = this.#hiddenWords.get(one);
          if (list) list.push(mask);
          else this.#hiddenWords.set(one, [mask]);
        }
    }
    return this.#hiddenWords.get(word) ?? [];
  }

  /** What is hidden in a range, wholly or in part. */
  masksIn(start: number, end: number): Mask[] {
    return this.masks.filter((mask) => mask.start < end && mask.end > start);
  }

  /** 1-based line of an offset. */
  lineAt(offset: number): number {
    const starts = this.#starts();
    return Math.max(
      1,
      countLeading(starts.length, (i) => starts[i]! <= offset),
    );
  }

  /** Offset at which a 1-based line starts. */
  lineStart(line: number): number {
    return this.#starts()[line - 1] ?? this.text.length;
  }

  /** Line and column of an offset. */
  placeAt(offset: number): TextPlace {
    const line = this.lineAt(offset);
    return { line, column: offset - this.lineStart(line) + 1 };
  }

  /** Offsets as lines and columns. */
  rangeOf(start: number, end: number): TextRange {
    return { start: this.placeAt(start), end: this.placeAt(end) };
  }

  get lineCount(): number {
    return this.#starts().length;
  }

  #starts(): number[] {
    if (!this.#lineStarts) {
      const starts = [0];
      for (let at = this.text.indexOf("\n"); at >= 0; at = this.text.indexOf("\n", at + 1)) {
        starts.push(at + 1);
      }
      this.#lineStarts = starts;
    }
    return this.#lineStarts;
  }
}
