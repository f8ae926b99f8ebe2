import type { NodeId, SyntaxNode, SyntaxTree } from "../syntax/index.js";

/** What is worked out of a node, once for all who ask. */
export function remembered<T>(work: (node: SyntaxNode) => T): (node: SyntaxNode) => T {
  const trees = new WeakMap<SyntaxTree, Map<NodeId, { readonly found: T }>>();
  return (node) => {
    let byNode = trees.get(node.tree);
    if (!byNode) trees.set(node.tree, (byNode = new Map()));
    let known = byNode.get(node.id);
    if (!known) byNode.set(node.id, (known = { found: work(node) }));
    return known.found;
  };
}
