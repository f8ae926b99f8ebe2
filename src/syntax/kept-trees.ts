import type { Edit, Point, Tree } from "web-tree-sitter";

/** So many of the parser's own trees are kept; each takes memory of the parser until it is given back. */
const MOST_KEPT = 4;

/** The parser's trees of the texts that were read last, so that a text that came of one by edits need not be read whole. */
export class KeptTrees<Key> {
  readonly #trees = new Map<Key, Tree>();

  /** Takes a tree over. */
  keep(key: Key, tree: Tree): void {
    this.#trees.set(key, tree);
    for (const [oldest, old] of this.#trees) {
      if (this.#trees.size <= MOST_KEPT) break;
      this.#trees.delete(oldest);
      old.delete();
    }
  }

  has(key: Key): boolean {
    return this.#trees.has(key);
  }

  /**
   * A copy of a kept tree that has been told of edits to its text; the caller must delete it. `edits` are in the order of
   * their places and do not overlap; their offsets are UTF-16 code units of `text`.
   */
  edited(key: Key, text: string, edits: readonly TextEdit[]): Tree {
    const copy = this.#trees.get(key)!.copy();
    const lines = new LineStarts(text);
    // From the end, so that what stands before an edit is where it was.
    for (const edit of [...edits].reverse()) copy.edit(asParserEdit(edit, lines) as Edit);
    return copy;
  }
}

/** One replacement in a text. */
export interface TextEdit {
  readonly start: number;
  readonly end: number;
  readonly text: string;
}

function asParserEdit(
  { start, end, text }: TextEdit,
  lines: LineStarts,
): Omit<Edit, "editPoint" | "editRange"> {
  const [startPosition, oldEndPosition] = [lines.pointAt(start), lines.pointAt(end)];
  return {
    startIndex: start,
    oldEndIndex: end,
    newEndIndex: start + text.length,
    startPosition,
    oldEndPosition,
    newEndPosition: pointAfter(startPosition, text),
  };
}

function pointAfter({ row, column }: Point, text: string): Point {
  const last = text.lastIndexOf("\n");
  if (last < 0) return { row, column: column + text.length };
  return { row: row + text.split("\n").length - 1, column: text.length - last - 1 };
}

/** Rows and columns as the parser counts them: a line ends with a line feed. */
class LineStarts {
  readonly #starts = [0];

  constructor(text: string) {
    for (let at = text.indexOf("\n"); at >= 0; at = text.indexOf("\n", at + 1)) this.#starts.push(at + 1);
  }

  pointAt(offset: number): Point {
    let [low, high] = [0, this.#starts.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (this.#starts[middle]! <= offset) low = middle;
      else high = middle - 1;
    }
    return { row: low, column: offset - this.#starts[low]! };
  }
}
