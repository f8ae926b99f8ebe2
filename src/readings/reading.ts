import type { Answer } from "../analysis/index.js";
import type { Capture, Hole, PatternMatch } from "../pattern/index.js";
import type { Language, SyntaxNode } from "../syntax/index.js";
import type { Keyed } from "./keyed.js";
import type { Choice } from "./choices.js";
import type { Chain } from "./chains.js";
import type { Collecting } from "./collecting.js";
import type { EqualOrMissing } from "./equal-or-missing.js";
import type { Sought } from "./first-found.js";
import type { Flagged } from "./flagged.js";
import type { Frame } from "./frame.js";
import type { Loop } from "./loops.js";
import type { NearMiss } from "./near.js";
import type { Segment } from "../rewrite/index.js";
import type { Resource } from "./held.js";
import type { OneOrMany } from "./one-or-many.js";
import type { PresenceTest } from "./presence-test.js";
import type { Switched } from "./switched.js";

/** What a reading found. */
export interface ReadingMatch extends PatternMatch {
  readonly pattern: undefined;
  /** What was tested, and how. */
  readonly tests: readonly PresenceTest[];
  /** The statement that the new expression goes into; none where it takes the place of the old code. */
  readonly frame: Frame | undefined;
  /** The condition and both values, where a choice was looked for. */
  readonly choice?: Choice;
  /** A resource with what acquires and releases it, where that was looked for. */
  readonly resource?: Resource;
  /** What stays ahead of the new code and behind it, within what was found; the new code stands as deep as the code at `at`. */
  readonly around?: {
    readonly before: readonly Segment[];
    readonly after: readonly Segment[];
    readonly at: number;
  };
  /** The loop over positions, where that was looked for. */
  readonly loop?: Loop;
  /** The list with the loop that fills it, where that was looked for. */
  readonly collecting?: Collecting;
  /** The loop that finds out whether an item passes a test, where that was looked for. */
  readonly flagged?: Flagged;
  /** The loop that looks for the first item that passes a test, where that was looked for. */
  readonly sought?: Sought;
  /** The item that is put or counted, where that was looked for. */
  readonly keyed?: Keyed;
  /** The tests and the reads that they protect, where that is what was looked for. */
  readonly chain?: Chain;
  /** The `switch` with the value of each way, where that was looked for. */
  readonly switched?: Switched;
  /** What is done with a list, with one thing and with nothing, where that was looked for. */
  readonly oneOrMany?: OneOrMany;
  /** The two things that are compared, where that was looked for. */
  readonly equalOrMissing?: EqualOrMissing;
  /** What must hold for this spelling to mean the same as one expression, and whether it does. */
  readonly spelling: readonly Answer[];
}

/**
 * What a rule looks for, said by its meaning: every spelling of it is found, and hands on the same parts. In place of what
 * was found comes one expression, which goes where the old value went.
 */
export interface Reading {
  /** Kinds of nodes at which it may begin. */
  kindsIn(language: Language): readonly string[];
  /** Words of the language at which it may begin. */
  readonly tokens?: readonly string[];
  /** Words of which a file must have one; undefined where nothing can be said. */
  wordsIn(language: Language): readonly string[] | undefined;
  /** The first spelling that fits at a node. */
  readAt(node: SyntaxNode): ReadingMatch | undefined;
  /** What is seen at a node and cannot be taken for what is looked for, where a reader would expect it. */
  nearAt?(node: SyntaxNode): NearMiss | undefined;
  /** Why nothing is found at a node where it may begin; for the author of a rule. */
  whyNot(node: SyntaxNode): string | undefined;
}

/** Is this a reading, rather than code? */
export function isReading(value: unknown): value is Reading {
  return typeof (value as Partial<Reading> | undefined)?.readAt === "function";
}

/** Was this found by a reading? */
export function isRead(match: PatternMatch): match is ReadingMatch {
  return "spelling" in match;
}

interface Found {
  readonly nodes: readonly SyntaxNode[];
  readonly captures: ReadonlyMap<Hole, Capture>;
  readonly tests: readonly PresenceTest[];
  readonly frame: Frame | undefined;
  readonly isStatements: boolean;
  readonly spelling: readonly Answer[];
}

/** A match of a reading, from what it found. */
export function readingMatch({ nodes, ...rest }: Found): ReadingMatch {
  const [first, last] = [nodes[0]!, nodes.at(-1)!];
  const { tree } = first;
  return {
    ...rest,
    pattern: undefined,
    tree,
    nodes: nodes.map(({ id }) => id),
    start: first.start,
    end: last.end,
  };
}
