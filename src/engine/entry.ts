import { headOf, matchAt, type CompiledPattern, type PatternMatch } from "../pattern/index.js";
import type { NearMiss, Reading } from "../readings/index.js";
import type { Rule } from "../rules/index.js";
import {
  kindIdsOf,
  tokenIdsOf,
  languageOf,
  type LanguageId,
  type NodeId,
  type SyntaxTree,
} from "../syntax/index.js";

/** One pattern or reading of one rule, made ready for one language. */
export interface Entry {
  readonly rule: Rule;
  /** Place of the rule among the active ones by its id, which settles ties. */
  readonly order: number;
  readonly alternative: number;
  readonly finds: Finder;
}

/** How the places of an entry are found. */
export interface Finder {
  /** Kinds of the nodes at which it may begin. */
  readonly rootKinds: readonly number[];
  /** The leaf that it begins with; undefined where it may begin in several ways. */
  readonly head: string | undefined;
  /** Words that a file must have, and words of which it must have one. */
  readonly words: readonly string[];
  readonly oneOf: readonly string[] | undefined;
  at(tree: SyntaxTree, n: NodeId): PatternMatch | undefined;
  /** What is seen at a node and cannot be rewritten, where nothing fits. */
  near?(tree: SyntaxTree, n: NodeId): NearMiss | undefined;
}

/** Finds code that looks like a pattern. */
export function patternFinder(pattern: CompiledPattern): Finder {
  return {
    rootKinds: [pattern.rootKind],
    head: headOf(pattern),
    words: pattern.words,
    oneOf: undefined,
    at: (tree, n) => matchAt(pattern, tree, n),
  };
}

/** Finds code that says what a reading looks for. */
export function readingFinder(reading: Reading, id: LanguageId): Finder {
  const language = languageOf(id);
  return {
    rootKinds: [
      ...kindIdsOf(language, reading.kindsIn(language)),
      ...tokenIdsOf(language, reading.tokens ?? []),
    ],
    head: undefined,
    words: [],
    oneOf: reading.wordsIn(language),
    at: (tree, n) => reading.readAt(tree.node(n)),
    near: (tree, n) => reading.nearAt?.(tree.node(n)),
  };
}
