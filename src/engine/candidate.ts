import type { Evidence } from "../analysis/index.js";
import type { Edit } from "../rewrite/index.js";
import { Match, type Rule, type Trust } from "../rules/index.js";
import type { Import } from "../syntax/index.js";
import type { FileEdits, Ground } from "./change.js";
import type { Span } from "./sound.js";

/** A match with its edits worked out, against the text of the tree it was found in. */
export interface Candidate {
  readonly rule: Rule;
  readonly order: number;
  readonly start: number;
  readonly end: number;
  readonly line: number;
  readonly trust: Trust;
  readonly evidence: readonly Ground[];
  readonly cautions: readonly Evidence[];
  readonly notes: readonly string[];
  readonly edits: readonly Edit[];
  readonly elsewhere: readonly FileEdits[];
  readonly needs: readonly Import[];
}

/** Something that was found, before it has an id. */
export type Placed<T> = Omit<T, "id" | "range"> & Span;

export function spanOf({ found }: Match): Span {
  return { start: found.start, end: found.end };
}
