import type { NodeId } from "../syntax/index.js";

/** The code that a hole stands for: neighbouring nodes, or an empty place. */
export interface Capture {
  readonly nodes: readonly NodeId[];
  readonly start: number;
  readonly end: number;
  /** The other places at which the hole stands for just the same text. */
  readonly again?: readonly { readonly start: number; readonly end: number }[];
}

/** A list's capture, whose nodes are only cut out when asked for. */
export class ListCapture implements Capture {
  #nodes: readonly NodeId[] | undefined;

  constructor(
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
