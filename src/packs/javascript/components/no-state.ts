import type { SyntaxNode } from "../../../core.js";

/** Why the work of an effect on the document cannot be said by state. */
export class NoState extends Error {
  constructor(
    readonly at: SyntaxNode,
    readonly why: string,
  ) {
    super(why);
  }
}
