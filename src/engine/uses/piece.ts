import type { Answer } from "../../analysis/index.js";
import type { Edit } from "../../rewrite/index.js";
import type { Trust } from "../../rules/index.js";
import type { Import, SyntaxNode } from "../../syntax/index.js";
import type { Ground } from "../change.js";

/** What becomes of one use of a name, or what is said of them all. */
export interface Piece {
  /** Undefined for the file of the match. */
  readonly path: string | undefined;
  readonly text: string;
  readonly edits: readonly Edit[];
  readonly needs?: readonly Import[];
  readonly evidence?: readonly Ground[];
  readonly trust?: Trust;
}

/** One use with other text in its place. */
export function piece(path: string | undefined, node: SyntaxNode, text: string): Piece {
  return { path, text: node.tree.text, edits: [{ start: node.start, end: node.end, text }] };
}

/** More doubts than these say nothing new. */
const MOST_DOUBTS = 5;

/** The first few doubts as evidence, and how many more there are. */
export function groundsOf(doubts: readonly Answer[]): Ground[] {
  const rest = doubts.length - MOST_DOUBTS;
  const more: Ground[] =
    rest > 0
      ? [{ answer: "unknown", code: "name.other-uses", says: `and ${rest} more places like these` }]
      : [];
  return [...doubts.slice(0, MOST_DOUBTS).map(ground), ...more];
}

function ground({ is, evidence }: Answer): Ground {
  return { answer: is, ...evidence };
}
