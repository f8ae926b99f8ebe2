import type { Edit } from "../../rewrite/index.js";

/** What becomes of one file of several that change together. */
export interface FileTogether {
  /** Relative to the project's root; the file of the match or another one, or a manifest such as `package.json`. */
  readonly path: string;
  /** The text that the edits are made for. */
  readonly text: string;
  readonly edits: readonly Edit[];
}

/**
 * The edits to several files that make sense only together, worked out by a rule that looks at a whole project. They are
 * one change: where one of them cannot be made, none is.
 */
export class Together {
  constructor(readonly files: readonly FileTogether[]) {}
}
