import type { NodeId, SyntaxTree } from "../syntax/index.js";

/** The code that a hole stands for: neighbouring nodes, or an empty place. */
export interface Capture {
  /** The tree that the nodes and offsets are of; in rules that reach across files not always that of the match. */
  readonly tree: SyntaxTree;
  readonly nodes: readonly NodeId[];
  readonly start: number;
  readonly end: number;
  /** The runs of statements that it stands for, where they do not stand side by side, or change on the way. */
  readonly pieces?: readonly CapturePiece[];
  /** The other places at which the hole stands for just the same text. */
  readonly again?: readonly { readonly start: number; readonly end: number }[];
}

/** Some of the statements that a hole stands for, with edits in them. */
export interface CapturePiece {
  readonly nodes: readonly NodeId[];
  readonly start: number;
  readonly end: number;
  readonly edits: readonly { readonly start: number; readonly end: number; readonly text: string }[];
}

/** A list's capture, whose nodes are only cut out when asked for. */
export class ListCapture implements Capture {
  #nodes: readonly NodeId[] | undefined;

  constructor(
    readonly tree: SyntaxTree,
    readonly all: readonly NodeId[],
    readonly from: number,
    readonly to: number,
    readonly start: number,
    readonly end: number,
  ) {}

  get nodes(): readonly NodeId[] {
    return (this.#nodes ??= this.all.slice(this.from, this.to));
  }
}

/** The source text that a hole stands for. */
export function textOfCapture({ tree, start, end }: Capture): string {
  return tree.text.slice(start, end);
}
