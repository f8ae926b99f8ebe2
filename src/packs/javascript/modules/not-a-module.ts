import type { Code, SyntaxNode } from "../../../core.js";

/** Why a package cannot be made of ES modules as it stands. */
export class NotAModule extends Error {
  constructor(
    readonly at: SyntaxNode | undefined,
    readonly why: string,
    readonly code: Code = "form.fits",
  ) {
    super(why);
  }
}
