import { jumpOf, shapeOf, type SyntaxNode } from "../syntax/index.js";
import { neverReturns } from "./flow/never-returns.js";

/**
 * The places at which control may leave these statements other than by their end, or stop in them, in order: jumps, code
 * that waits, calls that end the program. That any call may throw does not count, nor does a `break` or `continue` of a
 * loop inside them.
 */
export function exitsOf(statements: readonly SyntaxNode[]): SyntaxNode[] {
  return statements.flatMap((statement) =>
    [...statement.descendants()].filter((node) => node.named && isExit(node, statement)),
  );
}

function isExit(node: SyntaxNode, statement: SyntaxNode): boolean {
  if (jumpOf(node) !== undefined)
    return (
      !staysWithin(node, statement) && !runsLater(node, statement, node.tree.language.flow.leavesBlocks(node))
    );
  return (waits(node) || neverReturns(node)) && !runsLater(node, statement);
}

/** `await x`, `yield x`; a loop or a block that waits: `for await`, `async with`. */
function waits(node: SyntaxNode): boolean {
  const { asyncMarks, functions, suspensions } = node.tree.language;
  return node.is(suspensions) || (!node.is(functions) && asyncMarks.some((mark) => node.has(mark)));
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
