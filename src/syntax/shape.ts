import type { FlowShape } from "./flow-facts.js";
import type { SyntaxNode } from "./node.js";

/** How control moves through a node, as the facts of its language say; undefined where it does nothing of interest. */
export function shapeOf(node: SyntaxNode): FlowShape | undefined {
  const shape = node.tree.language.flow.shapes[node.kind];
  return typeof shape === "function" ? shape(node) : shape;
}

/** Where a jump goes: out of the function, to the next round of a loop; undefined for what is no jump. */
export function jumpOf(node: SyntaxNode): string | undefined {
  const shape = shapeOf(node);
  return shape?.is === "jump" ? shape.to : undefined;
}
