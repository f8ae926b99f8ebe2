import type { GrammarNames } from "../grammar-names.js";
import type { NodeArrays, NodeId } from "../node-arrays.js";

/** What a grammar takes into a pattern although it stands behind it, by the grammar's numbers. */
export interface Swallowed {
  /** The test that has the pattern: `x is null`. */
  readonly test: number;
  /** The pattern that takes in an expression. */
  readonly pattern: number;
  /** The expression of two sides that is taken in. */
  readonly binary: number;
  /** The number of the field of its first side. */
  readonly left: number;
  /** The operators that never stand in such a pattern, each with those that bind tighter. */
  readonly operators: ReadonlyMap<number, readonly number[]>;
}

/** Reads `(x is null) || y` where the grammar reads `x is (null || y)`: what is behind the pattern goes around the test. */
export function liftSwallowed(nodes: NodeArrays, { swallowed, layout }: GrammarNames): void {
  if (!swallowed) return;
  const { kindIds, parents, ends } = nodes;
  for (let n = 1; n < nodes.size; n++) {
    if (kindIds[n] !== swallowed.binary || kindIds[parents[n]!] !== swallowed.pattern) continue;
    const tighter = swallowed.operators.get(operatorOf(nodes, n, layout));
    if (!tighter) continue;
    let test = parents[n]!;
    while (test > 0 && kindIds[test] !== swallowed.test && ends[parents[test]!] === ends[n])
      test = parents[test]!;
    if (kindIds[test] !== swallowed.test) continue;
    lift(nodes, n, test, swallowed);
    // What binds tighter ends with the test, too.
    for (let at = test, around = parents[at]!; around >= 0; around = parents[at]!) {
      const isOperand = kindIds[around] === swallowed.binary && ends[around] === ends[at];
      if (!isOperand || !tighter.includes(operatorOf(nodes, around, layout))) break;
      lift(nodes, at, around, swallowed);
      at = around;
    }
  }
}

/** The kind of what stands behind the first side, comments aside. */
function operatorOf({ kindIds, after }: NodeArrays, n: NodeId, layout: GrammarNames["layout"]): number {
  let at = after[n + 1]!;
  while (layout[kindIds[at]!] === "always") at = after[at]!;
  return kindIds[at]!;
}

/**
 * Puts a node in the place of one above it that ends where it ends. The other one becomes its first part, and its own first part
 * takes its old place.
 */
function lift(nodes: NodeArrays, low: NodeId, high: NodeId, { left }: Swallowed): void {
  const { kindIds, starts, ends, after, parents, fieldIds } = nodes;
  const first = low + 1;
  const [firstEnd, firstAfter] = [ends[first]!, after[first]!];
  const holder = parents[low]!;
  const moved = {
    kind: kindIds[low]!,
    end: ends[low]!,
    after: after[low]!,
    parent: parents[high]!,
    field: fieldIds[high]!,
    lowField: fieldIds[low]!,
  };
  const isOnPath = new Set<NodeId>();
  for (let n = holder; ; n = parents[n]!) {
    isOnPath.add(n);
    if (n === high) break;
  }
  // The other parts of the lower node now belong to it in its new place.
  for (let n = firstAfter; n < moved.after; n = after[n]!) parents[n] = high;
  for (let n = low; n > high; n--) {
    const from = n - 1;
    kindIds[n] = kindIds[from]!;
    starts[n] = starts[from]!;
    fieldIds[n] = fieldIds[from]!;
    ends[n] = isOnPath.has(from) ? firstEnd : ends[from]!;
    after[n] = isOnPath.has(from) ? firstAfter : after[from]! + 1;
    parents[n] = from === high ? high : parents[from]! + 1;
  }
  fieldIds[high + 1] = left;
  parents[first] = holder + 1;
  fieldIds[first] = moved.lowField;
  kindIds[high] = moved.kind;
  ends[high] = moved.end;
  after[high] = moved.after;
  parents[high] = moved.parent;
  fieldIds[high] = moved.field;
}
