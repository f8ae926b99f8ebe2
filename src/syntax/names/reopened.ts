import type { SyntaxNode } from "../node.js";
import type { SyntaxTree } from "../tree.js";

const known = new WeakMap<SyntaxTree, Map<string, SyntaxNode>>();

/** Of the scopes of these kinds that have one name, and stand in others that have, the first of the file. */
export function firstOfItsName(scope: SyntaxNode, kinds: readonly string[]): SyntaxNode {
  if (!scope.named || !scope.is(kinds)) return scope;
  let first = known.get(scope.tree);
  if (!first) {
    known.set(scope.tree, (first = new Map()));
    for (const id of scope.tree.ofKinds(kinds)) {
      const node = scope.tree.node(id);
      if (!node.named) continue;
      const path = pathOf(node, kinds);
      if (!first.has(path)) first.set(path, node);
    }
  }
  return first.get(pathOf(scope, kinds)) ?? scope;
}

function pathOf(scope: SyntaxNode, kinds: readonly string[]): string {
  const around = [...scope.ancestors()].filter((node) => node.is(kinds));
  return [scope, ...around].map((node) => node.child("name")?.text ?? "").join(" in ");
}
