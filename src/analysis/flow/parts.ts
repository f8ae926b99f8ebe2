import { partsOf, type FlowFacts, type SyntaxNode } from "../../syntax/index.js";

export { partsOf, partsOfBranch } from "../../syntax/index.js";

/** The operator of a node, in lower case. */
export function operatorOf(node: SyntaxNode): string {
  const { tree, id } = node;
  let token: number | undefined;
  for (let c = id + 1; c < tree.after[id]!; c = tree.after[c]!) {
    if (tree.fieldOf(c) === "operator") return tree.textOf(c).toLowerCase();
    if (token !== undefined || tree.isNamed(c)) continue;
    const kind = tree.kind(c);
    if (kind !== "(" && kind !== ")") token = c;
  }
  return token === undefined ? "" : tree.textOf(token).toLowerCase();
}

/** The same for a part that may be given by its place. */
export function partAt(node: SyntaxNode, part: string | number): SyntaxNode[] {
  if (typeof part === "string") return partsOf(node, part);
  const found = node.parts[part];
  return found ? [found] : [];
}

/** A test without the brackets around it. */
export function unwrappedTest(test: SyntaxNode, facts: FlowFacts): SyntaxNode {
  let at = test;
  while (
    !facts.shapes[at.kind] &&
    at.parts.length === 1 &&
    at.is([at.tree.language.parenthesized, "condition_clause", "while_condition", "parenthesized_statements"])
  ) {
    at = at.firstPart!;
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
