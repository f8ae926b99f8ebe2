import type { Hole } from "./hole.js";
import type { PatternNode } from "./pattern-node.js";
import { holesOf } from "./variants.js";

/**
 * What can be said of a sequence of pattern nodes before it is tried: where trying again cannot help, so that
 * lists side by side do not multiply the work.
 */
export interface SequenceFacts {
  /**
   * For each place in the pattern: no hole from here on was filled since the first list. Then a failure from
   * here at some node is a failure however the lists before were filled.
   */
  readonly independent: readonly boolean[];
  /** No hole that is filled before the first list occurs after it: failures are the same for every start. */
  readonly alike: boolean;
  /** For each place the words that a match of the node there must contain, longest first. */
  readonly words: readonly (readonly string[])[];
  /** For each place the holes in the node there. */
  readonly holes: readonly (readonly Hole[])[];
  /** So many nodes stand ahead of the first that may fit several nodes or none, and behind the last such. */
  readonly first: number;
  readonly last: number;
}

const known = new WeakMap<readonly PatternNode[], SequenceFacts>();

export function sequenceFacts(pattern: readonly PatternNode[]): SequenceFacts {
  let facts = known.get(pattern);
  if (!facts) {
    const holes = pattern.map(holesIn);
    const firstList = pattern.findIndex((p) => p.type === "list");
    const independent = pattern.map((_, i) => {
      const since = new Set(firstList < 0 ? [] : holes.slice(firstList, i).flat());
      return !holes.slice(i).some((own) => own.some((hole) => since.has(hole)));
    });
    const early = new Set(firstList < 0 ? [] : holes.slice(0, firstList).flat());
    const alike =
      firstList >= 0 &&
      !holes
        .slice(firstList)
        .flat()
        .some((hole) => early.has(hole));
    const words = pattern.map((p) => wordsOf(p).sort((a, b) => b.length - a.length));
    const isOpen = (p: PatternNode): boolean => p.type === "list" || (p.type === "inner" && p.mayBeMissing);
    const open = pattern.findIndex(isOpen);
    const first = open < 0 ? pattern.length : open;
    const last = open < 0 ? 0 : pattern.length - 1 - pattern.findLastIndex(isOpen);
    facts = { independent, alike, words, holes, first, last };
    known.set(pattern, facts);
  }
  return facts;
}

/** The holes of a pattern node, as often as they occur. */
export function holesIn(p: PatternNode): Hole[] {
  switch (p.type) {
    case "hole":
    case "list":
      return [p.hole, ...(p.hole.limits.like ? holesOf(p.hole.limits.like) : [])];
    case "text":
      return p.pieces.filter((piece) => typeof piece !== "string");
    case "inner":
      return p.children.flatMap(holesIn);
    case "leaf":
      return [];
  }
}

function wordsOf(p: PatternNode): string[] {
  if (p.type === "inner") return p.children.flatMap(wordsOf);
  return p.type === "leaf" && !p.anyCase && /^[\p{L}\p{N}_$]+$/u.test(p.text) ? [p.text] : [];
}

/** Finds the next occurrence of words, remembering the last answer for each: searches mostly go forwards. */
export class WordSearch {
  readonly #text: string;
  readonly #answers = new Map<string, { readonly from: number; readonly at: number }>();

  constructor(text: string) {
    this.#text = text;
  }

  /** Offset of the word at or after `from`; Infinity when there is none. */
  next(word: string, from: number): number {
    const last = this.#answers.get(word);
    if (last && last.from <= from && from <= last.at) return last.at;
    const found = this.#text.indexOf(word, from);
    const at = found < 0 ? Infinity : found;
    this.#answers.set(word, { from, at });
    return at;
  }
}
