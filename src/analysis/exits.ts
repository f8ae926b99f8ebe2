import { jumpOf, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { neverReturns } from "./flow/never-returns.js";

/**
 * The places at which control may leave these statements other than by their end, or stop in them, in order: jumps, what
 * waits, what ends the program. Any call may throw; that is none. Nor is a `break` or `continue` of a loop inside them.
 */
export function exitsOf(statements: readonly SyntaxNode[]): SyntaxNode[] {
  return statements.flatMap((statement) => {
    const exits: SyntaxNode[] = [];
    for (const node of statement.descendants()) {
      const exit = exitAt(node, statement);
      if (exit && !exits.some((other) => other.same(exit))) exits.push(exit);
    }
    return exits;
  });
}

function exitAt(node: SyntaxNode, statement: SyntaxNode): SyntaxNode | undefined {
  const { language } = node.tree;
  if (!node.named) {
    // `for await`, `async with`.
    const whole = node.parent!;
    const waits = language.asyncMarks.includes(node.text) && !whole.is(language.functions);
    return waits && !runsLater(whole, statement) ? whole : undefined;
  }
  if (jumpOf(node) !== undefined) {
    if (staysWithin(node, statement)) return undefined;
    const blocks = language.flow.leavesBlocks(node);
    return runsLater(node, statement, blocks) ? undefined : node;
  }
  if (!node.is(language.suspensions) && !neverReturns(node)) return undefined;
  return runsLater(node, statement) ? undefined : node;
}

/** Does a jump only leave a loop, or go to its next round, that stands in a statement as a whole? */
function staysWithin(jump: SyntaxNode, statement: SyntaxNode): boolean {
  const to = jumpOf(jump);
  const { delayed, flow } = jump.tree.language;
  if ((to !== "break" && to !== "continue") || flow.label(jump) !== undefined || flow.levels(jump) > 1)
    return false;
  for (let at: SyntaxNode | undefined = jump.parent; at; at = at.parent) {
    const shape = shapeOf(at)?.is;
    if (shape === "loop" || shape === "each") return true;
    if (at.same(statement) || at.is(delayed)) return false;
  }
  return false;
}

/**
 * Does a node belong to a function or lambda inside `within`, so that it runs at another time? Kinds in `seenThrough` are
 * none of these.
 */
export function runsLater(
  node: SyntaxNode,
  within: SyntaxNode,
  seenThrough: readonly string[] = [],
): boolean {
  const { delayed } = node.tree.language;
  for (let at: SyntaxNode | undefined = node; at && !at.same(within.parent); at = at.parent) {
    if (at.is(delayed) && !at.is(seenThrough)) return true;
  }
  return false;
}
