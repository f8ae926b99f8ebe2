import type { SyntaxNode } from "../syntax/index.js";

/** The places at which control may leave these statements other than by their end, in order. */
export function earlyExits(statements: readonly SyntaxNode[]): SyntaxNode[] {
  return statements.flatMap((statement) => {
    const { exits, suspensions } = statement.tree.language;
    return [...statement.descendants()].filter(
      (node) => node.named && (node.is(exits) || node.is(suspensions)) && !runsLater(node, statement),
    );
  });
}

/** Does a node belong to a function or lambda inside `within`, so that it runs at another time? */
export function runsLater(node: SyntaxNode, within: SyntaxNode): boolean {
  const { delayed } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at && !at.same(within.parent); at = at.parent) {
    if (at.is(delayed)) return true;
  }
  return false;
}
