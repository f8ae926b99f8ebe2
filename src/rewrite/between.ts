import { Hole, Replacing, type Part, type PatternMatch } from "../pattern/index.js";
import { tokensOf } from "./tokens.js";

interface Stretch {
  readonly holes: ReadonlySet<Hole>;
  readonly start: number;
  readonly end: number;
  readonly tokens: string;
}

/**
 * The text between neighbouring holes of a match. Where a replacement has the same tokens between the same two
 * holes, in either order, the author meant them to stay, so the file's own white space and comments are taken.
 */
export class Between {
  readonly #stretches: readonly Stretch[];

  constructor({ tree, captures }: PatternMatch) {
    const inOrder = [...captures]
      .filter(([hole]) => hole.kind !== "text")
      .sort(([, a], [, b]) => a.start - b.start || a.end - b.end);
    const stretches: Stretch[] = [];
    inOrder.forEach(([hole, { end }], i) => {
      const next = inOrder[i + 1];
      if (!next || next[1].start < end) return;
      const start = end;
      const text = tree.text.slice(start, next[1].start);
      stretches.push({ holes: new Set([hole, next[0]]), start, end: next[1].start, tokens: shape(text) });
    });
    this.#stretches = stretches;
  }

  /** Where the file has this text between these two parts; undefined when it has other tokens there. */
  find(text: string, left: Part | undefined, right: Part | undefined): Stretch | undefined {
    const before = holeOf(left);
    const after = holeOf(right);
    if (!before || !after || before === after) return undefined;
    const tokens = shape(text);
    return this.#stretches.find((s) => s.holes.has(before) && s.holes.has(after) && s.tokens === tokens);
  }
}

function holeOf(part: Part | undefined): Hole | undefined {
  return part instanceof Replacing ? part.hole : part instanceof Hole ? part : undefined;
}

function shape(text: string): string {
  return tokensOf(text)
    .map((token) => token.text)
    .join(" ");
}
