import type { Code, SyntaxNode } from "../../../../core.js";

/** Why the library's type cannot give way to the one of the standard library. */
export class Refusal extends Error {
  constructor(
    readonly why: string,
    readonly at: SyntaxNode,
    readonly code: Code = "form.fits",
  ) {
    super(why);
  }
}
