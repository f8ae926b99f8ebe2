import type { NodeId } from "../syntax/index.js";
import type { Capture } from "./match.js";

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
