import type { Edit, EditCode } from "../../rewrite/index.js";
import type { SyntaxTree } from "../../syntax/index.js";
import type { Span } from "../sound.js";

export type { Span } from "../sound.js";

/** A file before and after some edits, which a check compares. */
export interface Rewriting {
  readonly before: SyntaxTree;
  readonly after: SyntaxTree;
  /** What leads from one to the other, in order of place. */
  readonly edits: readonly Edit[];
  /** From the first to the last edit of each change. */
  readonly spans: readonly Span[];
}

/** What is wrong with the result of a rewriting, as the reason for which it is held back. */
export interface Fault {
  readonly code: EditCode;
  readonly says: string;
}

export type Check = (rewriting: Rewriting) => Fault | undefined;
