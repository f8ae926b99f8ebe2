import type { FlowFacts, FlowShape, SyntaxNode } from "../../syntax/index.js";

/** The operator of a node, in lower case. */
export function operatorOf(node: SyntaxNode): string {
  const token = (child: SyntaxNode): boolean => !child.named && !/^[()]$/.test(child.kind);
  return (node.child("operator") ?? node.children.find(token))?.text.toLowerCase() ?? "";
}

/** The children that a part of a shape names. */
export function partsOf(node: SyntaxNode, part: string): SyntaxNode[] {
  const names = part.split("|");
  const place = /^\d+$/.test(part) ? node.parts[Number(part)] : undefined;
  if (place) return [place];
  return node.children.filter((child) => names.includes(child.field ?? "") || names.includes(child.kind));
}

/** The same for a part that may be given by its place. */
export function partAt(node: SyntaxNode, part: string | number): SyntaxNode[] {
  if (typeof part === "string") return partsOf(node, part);
  const found = node.parts[part];
  return found ? [found] : [];
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

/** A test without the brackets around it. */
export function unwrappedTest(test: SyntaxNode, facts: FlowFacts): SyntaxNode {
  let at = test;
  while (
    !facts.shapes[at.kind] &&
    at.parts.length === 1 &&
    at.is([at.tree.language.parenthesized, "condition_clause", "while_condition", "parenthesized_statements"])
  ) {
    at = at.parts[0]!;
  }
  return at;
}

/** Is a test written to be true always? */
export function isAlways(test: SyntaxNode): boolean {
  return /^\(*\s*(true|True|1|\$true)\s*\)*$/.test(test.text);
}

/** Does a way belong to this choice, and not to one inside it? */
export function nearest(way: SyntaxNode, choice: SyntaxNode, facts: FlowFacts): boolean {
  const { functions, classes } = way.tree.language;
  for (const above of way.ancestors()) {
    if (above.same(choice)) return true;
    if (above.is(functions) || above.is(classes)) return false;
    const shape = facts.shapes[above.kind];
    if (typeof shape === "object" && shape.is === "choice") return false;
  }
  return false;
}

/** Children of these kinds, also where a list of them stands in between. */
export function childrenOfKinds(node: SyntaxNode, kinds: readonly string[]): SyntaxNode[] {
  return node.children.flatMap((child) =>
    child.is(kinds)
      ? [child]
      : child.children.filter((inner) => inner.is(kinds) && !child.is(node.tree.language.statementLists)),
  );
}
