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

/** What a shape says of a node, by itself or when it is asked. */
export function saidOf(
  says: boolean | ((node: SyntaxNode) => boolean) | undefined,
  node: SyntaxNode,
): boolean {
  return typeof says === "function" ? says(node) : (says ?? false);
}

/** The children that a part of a shape names. */
export function partsOf(node: SyntaxNode, part: string): SyntaxNode[] {
  const { tree, id } = node;
  const { names, place } = partNamed(part);
  const placed = place === undefined ? undefined : node.parts[place];
  if (placed) return [placed];
  const result: SyntaxNode[] = [];
  for (let c = id + 1; c < tree.after[id]!; c = tree.after[c]!)
    if (names.includes(tree.fieldOf(c) ?? "") || names.includes(tree.kind(c))) result.push(tree.node(c));
  return result;
}

/** Is a node a label of one way of a `switch`, and none of its statements? */
export function isLabel(node: SyntaxNode): boolean {
  const way = node.parent;
  return [way?.parent, way?.parent?.parent].some((choice) => {
    const shape = choice && shapeOf(choice);
    if (shape?.is !== "choice" || shape.labels === undefined || !way!.is(shape.ways)) return false;
    const { names } = partNamed(shape.labels);
    return names.includes(node.field ?? "") || names.includes(node.kind);
  });
}

interface PartName {
  readonly names: readonly string[];
  /** Its place among the parts, where it is named by that. */
  readonly place: number | undefined;
}

const partNames = new Map<string, PartName>();

function partNamed(part: string): PartName {
  let known = partNames.get(part);
  if (!known) {
    known = { names: part.split("|"), place: /^\d+$/.test(part) ? Number(part) : undefined };
    partNames.set(part, known);
  }
  return known;
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
