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

/** The children that a part of a shape names. */
export function partsOf(node: SyntaxNode, part: string): SyntaxNode[] {
  const names = part.split("|");
  const place = /^\d+$/.test(part) ? node.parts[Number(part)] : undefined;
  if (place) return [place];
  return node.children.filter((child) => names.includes(child.field ?? "") || names.includes(child.kind));
}

type BranchParts = [then: SyntaxNode[], test: SyntaxNode[], otherwise: SyntaxNode[]];

/** What is done, what is tested, and what is done otherwise. */
export function partsOfBranch(node: SyntaxNode, shape: Extract<FlowShape, { is: "branch" }>): BranchParts {
  if (shape.order) {
    const [then, test, ...rest] = node.parts;
    return [then ? [then] : [], test ? [test] : [], rest];
  }
  return [
    shape.then ? partsOf(node, shape.then) : [],
    partsOf(node, shape.test),
    (shape.otherwise ? partsOf(node, shape.otherwise) : []).flatMap((part) =>
      part.kind.endsWith("_clauses") ? part.parts : [part],
    ),
  ];
}
