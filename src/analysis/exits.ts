import { jumpOf, shapeOf, type SyntaxNode } from "../syntax/index.js";

/**
 * The places at which control may leave these statements other than by their end, or stop in them, in order. A `break`
 * or `continue` of a loop inside them is none.
 */
export function exitsOf(statements: readonly SyntaxNode[]): SyntaxNode[] {
  return statements.flatMap((statement) => {
    const { suspensions } = statement.tree.language;
    return [...statement.descendants()].filter(
      (node) =>
        node.named &&
        ((jumpOf(node) !== undefined && !staysWithin(node, statement)) || node.is(suspensions)) &&
        !runsLater(node, statement),
    );
  });
}

/** Does a jump only leave a loop, or go to its next round, that stands in a statement as a whole? */
function staysWithin(jump: SyntaxNode, statement: SyntaxNode): boolean {
  const to = jumpOf(jump);
  const { label, levels } = jump.tree.language.flow;
  if ((to !== "break" && to !== "continue") || label(jump) !== undefined || levels(jump) > 1) return false;
  for (let at: SyntaxNode | undefined = jump.parent; at; at = at.parent) {
    const shape = shapeOf(at)?.is;
    if (shape === "loop" || shape === "each") return true;
    if (at.same(statement)) return false;
  }
  return false;
}

/** Does a node belong to a function or lambda inside `within`, so that it runs at another time? */
export function runsLater(node: SyntaxNode, within: SyntaxNode): boolean {
  const { delayed } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at && !at.same(within.parent); at = at.parent) {
    if (at.is(delayed)) return true;
  }
  return false;
}
