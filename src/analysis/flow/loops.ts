import { shapeOf, type SyntaxNode } from "../../syntax/index.js";

/** The outermost loop around a node, up to a node around both. */
export function outermostLoop(node: SyntaxNode, within: SyntaxNode): SyntaxNode | undefined {
  let found: SyntaxNode | undefined;
  for (const above of node.ancestors()) {
    const is = shapeOf(above)?.is;
    if (is === "loop" || is === "each") found = above;
    if (above.same(within)) break;
  }
  return found;
}
