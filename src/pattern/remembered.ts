import { significantChildren, type NodeId, type SyntaxTree } from "../syntax/index.js";
import { WordSearch } from "./backtracking.js";
import type { PatternNode } from "./pattern-node.js";

const siblingLists = new WeakMap<SyntaxTree, Map<NodeId, readonly NodeId[]>>();

/** The children of a node that count, found once for each tree. */
export function siblingsIn(tree: SyntaxTree, parent: NodeId): readonly NodeId[] {
  let lists = siblingLists.get(tree);
  if (!lists) siblingLists.set(tree, (lists = new Map()));
  let siblings = lists.get(parent);
  if (!siblings) lists.set(parent, (siblings = significantChildren(tree, parent)));
  return siblings;
}

const ends = new WeakMap<readonly NodeId[], Map<readonly PatternNode[], Set<number>>>();

/** Places from which a pattern is known to fail among these siblings, wherever it starts. */
export function deadEnds(siblings: readonly NodeId[], pattern: readonly PatternNode[]): Set<number> {
  let byPattern = ends.get(siblings);
  if (!byPattern) ends.set(siblings, (byPattern = new Map()));
  let dead = byPattern.get(pattern);
  if (!dead) byPattern.set(pattern, (dead = new Set()));
  return dead;
}

const searches = new WeakMap<SyntaxTree, WordSearch>();

/** The word search of a tree's text. */
export function searchIn(tree: SyntaxTree): WordSearch {
  let search = searches.get(tree);
  if (!search) searches.set(tree, (search = new WordSearch(tree.text)));
  return search;
}
