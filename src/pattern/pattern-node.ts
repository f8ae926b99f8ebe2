import type { Hole } from "./hole.js";

/** One node of a compiled pattern. Kinds are the grammar's numbers. */
export type PatternNode = HoleNode | ListNode | LeafNode | TextNode | InnerNode;

/** One node that a hole stands for. */
export interface HoleNode {
  readonly type: "hole";
  readonly hole: Hole;
  /** So many parentheses are written around it in the pattern, and are not part of what it stands for. */
  readonly parentheses: number;
}

/** A token, a name or a literal. */
export interface LeafNode {
  readonly type: "leaf";
  readonly kind: number;
  readonly kindName: string;
  readonly text: string;
  /** May it be written in upper or lower case? */
  readonly anyCase: boolean;
}

/** Any number of neighbouring nodes, with the comma that goes when there are none. */
export interface ListNode {
  readonly type: "list";
  readonly hole: Hole;
  readonly comma: "before" | "after" | undefined;
}

/** A string or a leaf with holes inside: texts and holes in turn, texts at both ends. */
export interface TextNode {
  readonly type: "text";
  readonly kind: number;
  readonly pieces: readonly (string | Hole)[];
}

/** A node with what must be in it. */
export interface InnerNode {
  readonly type: "inner";
  readonly kind: number;
  readonly children: readonly PatternNode[];
  /** Its only content may be missing, and then it may be missing itself. */
  readonly mayBeMissing: boolean;
  /** The only statement in braces that may be left out. */
  readonly lone: PatternNode | undefined;
  /** The leaf that may stand for all of it, `jars` for `jars: jars`, and what it stands for there. */
  readonly short: { readonly kindName: string; readonly text: string; readonly value: HoleNode } | undefined;
  /** Its operator lets the two sides be swapped. */
  readonly commutes: boolean;
  /** The operator that says the same with the sides swapped, where that is another one: `<` for `>`. */
  readonly mirrored: LeafNode | undefined;
}
