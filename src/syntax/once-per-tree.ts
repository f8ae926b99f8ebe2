import type { SyntaxNode } from "./node.js";
import type { NodeId } from "./node-arrays.js";
import type { SyntaxTree } from "./tree.js";

let slots = 0;

/** What is worked out of a tree once, for all who ask; it goes with the tree. */
export function oncePerTree<T extends object>(work: (tree: SyntaxTree) => T): (tree: SyntaxTree) => T {
  const slot = slots++;
  return (tree) => (tree.workedOut[slot] ??= work(tree)) as T;
}

/** The same for a node. */
export function oncePerNode<T>(work: (node: SyntaxNode) => T): (node: SyntaxNode) => T {
  const known = oncePerTree(() => new Map<NodeId, T>());
  return (node) => {
    const byNode = known(node.tree);
    let found = byNode.get(node.id);
    if (found === undefined && !byNode.has(node.id)) byNode.set(node.id, (found = work(node)));
    return found as T;
  };
}

/** The same for a word or a number in the light of a tree. */
export function oncePerKey<K extends string | number, T>(
  work: (key: K, tree: SyntaxTree) => T,
): (key: K, tree: SyntaxTree) => T {
  const known = oncePerTree(() => new Map<K, T>());
  return (key, tree) => {
    const byKey = known(tree);
    let found = byKey.get(key);
    if (found === undefined && !byKey.has(key)) byKey.set(key, (found = work(key, tree)));
    return found as T;
  };
}
