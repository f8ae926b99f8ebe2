import type { SyntaxNode } from "../node.js";
import { oncePerTree } from "../once-per-tree.js";
import type { SyntaxTree } from "../tree.js";

const firsts = oncePerTree(() => new Map<readonly string[], ReadonlyMap<string, SyntaxNode>>());

/** Of the scopes of these kinds that have one name, and stand in others that have, the first of the file. */
export function firstOfItsName(scope: SyntaxNode, kinds: readonly string[]): SyntaxNode {
  if (!scope.named || !scope.is(kinds)) return scope;
  const byKinds = firsts(scope.tree);
  let first = byKinds.get(kinds);
  if (!first) byKinds.set(kinds, (first = firstOf(scope.tree, kinds)));
  return first.get(pathOf(scope, kinds)) ?? scope;
}

function firstOf(tree: SyntaxTree, kinds: readonly string[]): Map<string, SyntaxNode> {
  const first = new Map<string, SyntaxNode>();
  for (const id of tree.ofKinds(kinds)) {
    const node = tree.node(id);
    if (!node.named) continue;
    const path = pathOf(node, kinds);
    if (!first.has(path)) first.set(path, node);
  }
  return first;
}

function pathOf(scope: SyntaxNode, kinds: readonly string[]): string {
  const around = [...scope.ancestors()].filter((node) => node.is(kinds));
  return [scope, ...around].map((node) => node.child("name")?.text ?? "").join(" in ");
}
