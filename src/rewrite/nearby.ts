import type { SyntaxTree } from "../syntax/index.js";
import { clash, clashOnLines, type Edit } from "./edits.js";

/** Sets of edits of one file, found again by the lines that they touch. */
export class Nearby<T> {
  readonly #byLine = new Map<number, Map<T, readonly Edit[]>>();

  constructor(readonly tree: SyntaxTree) {}

  add(owner: T, edits: readonly Edit[]): void {
    for (const line of linesOf(this.tree, edits)) {
      const here = this.#byLine.get(line);
      if (here) here.set(owner, edits);
      else this.#byLine.set(line, new Map([[owner, edits]]));
    }
  }

  /** Those that cannot be made together with some edits, in the order in which they were added. */
  clashing(edits: readonly Edit[]): T[] {
    const near = new Map<T, readonly Edit[]>();
    for (const line of linesOf(this.tree, edits))
      for (const [owner, others] of this.#byLine.get(line) ?? []) near.set(owner, others);
    const { text } = this.tree;
    return [...near].flatMap(([owner, others]) =>
      clash(edits, others) || clashOnLines(text, edits, others) ? [owner] : [],
    );
  }
}

/** The lines that some edits touch; 1-based. */
export function linesOf(tree: SyntaxTree, edits: readonly Edit[]): Set<number> {
  const lines = new Set<number>();
  for (const { start, end } of edits) {
    const last = tree.lineAt(end);
    for (let line = tree.lineAt(start); line <= last; line++) lines.add(line);
  }
  return lines;
}
