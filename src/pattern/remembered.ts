import { oncePerTree, type NodeId } from "../syntax/index.js";
import { WordSearch } from "./backtracking.js";
import type { PatternNode } from "./pattern-node.js";

const ends = new WeakMap<readonly NodeId[], Map<readonly PatternNode[], Set<number>>>();

/** Places from which a pattern is known to fail among these siblings, wherever it starts. */
export function deadEnds(siblings: readonly NodeId[], pattern: readonly PatternNode[]): Set<number> {
  let byPattern = ends.get(siblings);
  if (!byPattern) ends.set(siblings, (byPattern = new Map()));
  let dead = byPattern.get(pattern);
  if (!dead) byPattern.set(pattern, (dead = new Set()));
  return dead;
}

/** The word search of a tree's text. */
export const searchIn = oncePerTree(({ text }) => new WordSearch(text));
