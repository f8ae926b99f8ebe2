import type { Match, Rule } from "../rules/index.js";
import type { Change } from "./change.js";
import type { Span } from "./sound.js";

type Told = "line" | "trust" | "evidence" | "cautions" | "notes" | "edits" | "elsewhere" | "needs";

/** A match with its edits worked out, against the text of the tree it was found in. */
export interface Candidate extends Pick<Change, Told>, Span {
  readonly rule: Rule;
  readonly order: number;
}

/** Something that was found, before it has an id. */
export type Placed<T> = Omit<T, "id" | "range"> & Span;

/** The range of a match. */
export function spanOf({ found }: Match): Span {
  return { start: found.start, end: found.end };
}
