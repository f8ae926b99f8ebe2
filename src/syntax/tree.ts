import type { Tree } from "web-tree-sitter";
import type { Language } from "./language.js";
import { collapsed } from "./collapse.js";
import { grammarOf } from "./grammars.js";
import { namesOf, type GrammarNames } from "./grammar-names.js";
import { arraysFor, NO_NODE, type NodeArrays, type NodeId } from "./node-arrays.js";
import { SyntaxNode } from "./node.js";

const UNKNOWN_FIELD = 0xffff;

/**
 * A syntax tree in typed arrays. Nodes are numbered in document order, so the children of `n` are `n + 1`,
 * then `after[n + 1]`, and so on up to `after[n]`. Offsets are UTF-16 code units into `text`.
 *
 * The arrays are filled by one walk of the parser's own cursor, so they are that tree by construction, but for
 * what the language's facts ask for: chains of nodes that say nothing are collapsed, and kinds that are two
 * names for one thing become one. And where a grammar takes the carriage return of a line end into a comment,
 * it is left out. The cursor numbers nodes the same way, which lets field names be asked for later, one node at
 * a time.
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
  /** For each node the number that the parser's cursor knows its field by; undefined where it is the same. */
  readonly #origins: Uint32Array | undefined;
  /** Nodes the parser marks as errors or as missing, and those that must not be empty but are. */
  readonly errors: readonly NodeId[];

  readonly #kindNames: readonly string[];
  readonly #isNamed: readonly boolean[];
  readonly #fieldNames: readonly (string | null)[];
  readonly #tree: Tree;
  #isDisposed = false;
  readonly #cursor: ReturnType<Tree["walk"]>;
  #fields: Uint16Array | undefined;
  #comments: NodeId[] | undefined;
  #named: Map<string, NodeId[]> | undefined;
  #lineStarts: number[] | undefined;

  constructor(text: string, language: Language, tree: Tree) {
    const names = namesOf(language);
    this.text = text;
    this.language = language;
    this.#kindNames = names.kinds;
    this.#isNamed = names.named;
    this.#fieldNames = names.fields;
    this.#tree = tree;
    this.#cursor = tree.walk();
    unused.register(this, { tree, cursor: this.#cursor }, this);

    const nodes = arraysFor(tree.rootNode.descendantCount);
    const errors = this.#fill(nodes, names, !tree.rootNode.hasError) ?? this.#fill(nodes, names, false) ?? [];
    cutBlankEnds(text, nodes, names);
    const { arrays, origins, moved } = collapsed(nodes, names);
    this.size = arrays.size;
    this.kindIds = arrays.kindIds;
    this.starts = arrays.starts;
    this.ends = arrays.ends;
    this.after = arrays.after;
    this.parents = arrays.parents;
    this.#origins = origins;
    const empty = names.neverEmpty ? emptyNodes(arrays, names.neverEmpty) : [];
    this.errors = [...errors.map(moved), ...empty].sort((a, b) => a - b);
  }

  /**
   * Walks the parser's tree. `quick` takes a token that reads as its kind to be that long and to have no
   * children, which spares calls to the parser; undefined when that turned out wrong.
   */
  #fill(nodes: NodeArrays, { kinds, tokens, sameKind }: GrammarNames, quick: boolean): NodeId[] | undefined {
    const { text } = this;
    const { kindIds, starts, ends, after, parents } = nodes;
    const errors: NodeId[] = [];
    const endsAt = text.includes("\r\n") ? lineEndTrimmer(text) : (end: number) => end;
    const cursor = this.#cursor;
    cursor.gotoDescendant(0);
    let n = 0;
    let parent = NO_NODE;
    walk: for (;;) {
      const kind = cursor.nodeTypeId;
      const start = cursor.startIndex;
      const isToken = quick && tokens[kind] === true && text.startsWith(kinds[kind]!, start);
      kindIds[n] = sameKind?.get(kind) ?? kind;
      starts[n] = start;
      ends[n] = isToken ? start + kinds[kind]!.length : endsAt(cursor.endIndex);
      parents[n] = parent;
      if (!quick && (kind === ERROR_KIND || cursor.nodeIsMissing)) errors.push(n);
      const here = n++;
      if (!isToken && cursor.gotoFirstChild()) {
        parent = here;
        continue;
      }
      after[here] = n;
      while (!cursor.gotoNextSibling()) {
        if (!cursor.gotoParent()) break walk;
        after[parent] = n;
        parent = parents[parent]!;
      }
    }
    return n === nodes.size ? errors : undefined;
  }

  /** Name of a node's kind as the grammar gives it; tokens are their own text. */
  kind(n: NodeId): string {
    return this.#kindNames[this.kindIds[n]!] ?? "ERROR";
  }

  /** False for tokens such as `(` and `return`. */
  isNamed(n: NodeId): boolean {
    return this.#isNamed[this.kindIds[n]!] ?? true;
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
    this.#fields ??= new Uint16Array(this.size).fill(UNKNOWN_FIELD);
    let id = this.#fields[n]!;
    if (id === UNKNOWN_FIELD) {
      if (this.#isDisposed) throw new Error("a tree was asked for a field after it was given back");
      this.#cursor.gotoDescendant(this.#origins?.[n] ?? n);
      id = this.#cursor.currentFieldId;
      this.#fields[n] = id;
    }
    return this.#fieldNames[id] ?? undefined;
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

  /** The leaves with exactly this text that can name a variable, in document order. */
  mentions(name: string): readonly NodeId[] {
    const { variables } = this.language;
    return this.named(name).filter((n) => variables.includes(this.kind(n)) && this.textOf(n) === name);
  }

  /** The comments that lie wholly inside a range. */
  commentsIn(start: number, end: number): NodeId[] {
    return this.comments.filter((n) => this.starts[n]! >= start && this.ends[n]! <= end);
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

  /** The innermost node that holds the range. */
  nodeAt(start: number, end = start): SyntaxNode {
    let n = 0;
    search: for (;;) {
      for (let c = n + 1; c < this.after[n]!; c = this.after[c]!) {
        const holds = this.starts[c]! <= start && end <= this.ends[c]! && start < this.ends[c]!;
        if (holds) {
          n = c;
          continue search;
        }
      }
      return this.node(n);
    }
  }

  /** 1-based line of an offset. */
  lineAt(offset: number): number {
    const starts = this.#starts();
    let low = 0;
    let high = starts.length;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (starts[middle]! <= offset) low = middle;
      else high = middle;
    }
    return low + 1;
  }

  /** Offset at which a 1-based line starts. */
  lineStart(line: number): number {
    return this.#starts()[line - 1] ?? this.text.length;
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

  /** Gives the parser's memory back. Fields cannot be asked for afterwards. */
  dispose(): void {
    if (this.#isDisposed) return;
    this.#isDisposed = true;
    unused.unregister(this);
    giveBack({ tree: this.#tree, cursor: this.#cursor });
  }
}

/** What a tree holds of the parser's memory. */
interface Held {
  readonly tree: Tree;
  readonly cursor: ReturnType<Tree["walk"]>;
}

function giveBack({ tree, cursor }: Held): void {
  cursor.delete();
  tree.delete();
}

/**
 * Gives back what nobody disposed of. The binding's own clean-up frees a cursor by whatever its transfer buffer holds at
 * that moment, so it must never come to that: as long as they are held here, it does not.
 */
const unused = new FinalizationRegistry<Held>(giveBack);

function emptyNodes({ size, kindIds, after }: NodeArrays, neverEmpty: readonly boolean[]): NodeId[] {
  const result: NodeId[] = [];
  for (let n = 0; n < size; n++) if (neverEmpty[kindIds[n]!] && after[n] === n + 1) result.push(n);
  return result;
}

/** Takes white space out of the ends of nodes that the grammar counts it to. */
function cutBlankEnds(
  text: string,
  { size, kindIds, starts, ends }: NodeArrays,
  { withLineEnd }: GrammarNames,
): void {
  if (!withLineEnd) return;
  for (let n = 0; n < size; n++) {
    if (!withLineEnd[kindIds[n]!]) continue;
    while (ends[n]! > starts[n]! && /\s/.test(text[ends[n]! - 1]!)) ends[n]!--;
  }
}

function lineEndTrimmer(text: string): (end: number) => number {
  return (end) => (text[end - 1] === "\r" && text[end] !== "\r" ? end - 1 : end);
}

const ERROR_KIND = 0xffff;

/**
 * Parses source text. The result is freed with `dispose()`. A byte-order mark at the start is kept in `text`
 * and hidden from the parser.
 */
export function parse(text: string, language: Language): SyntaxTree {
  const seen = text.startsWith("\uFEFF") ? "\n" + text.slice(1) : text;
  const tree = grammarOf(language).parser.parse(seen);
  if (!tree) throw new Error(`The parser gave no tree for ${language.title}.`);
  return new SyntaxTree(text, language, tree);
}

/** Parses only to count error nodes, without building the arrays. */
export function countErrors(text: string, language: Language): number {
  const tree = parse(text, language);
  const count = tree.errors.length;
  tree.dispose();
  return count;
}
