import type { PatternNode } from "./pattern-node.js";
import { holesIn } from "./backtracking.js";

const MOST_SWAPS = 4;
const NONE: readonly ReadonlySet<PatternNode>[] = [new Set()];
const known = new WeakMap<readonly PatternNode[], readonly ReadonlySet<PatternNode>[]>();

/**
 * Which commuting nodes of a pattern to turn round, in the order of trying. A node is tried both ways where it
 * stands; only where holes occur twice may the way that fits there be wrong for the rest, and all ways of all
 * such nodes are gone through (at most four nodes, sixteen ways).
 */
export function swapsToTry(sequence: readonly PatternNode[]): readonly ReadonlySet<PatternNode>[] {
  let swaps = known.get(sequence);
  if (!swaps) known.set(sequence, (swaps = findSwaps(sequence)));
  return swaps;
}

function findSwaps(sequence: readonly PatternNode[]): readonly ReadonlySet<PatternNode>[] {
  const holes = sequence.flatMap(holesIn);
  if (new Set(holes).size === holes.length) return NONE;
  const nodes = sequence.flatMap(commuting).slice(0, MOST_SWAPS);
  return Array.from(
    { length: 2 ** nodes.length },
    (_, mask) => new Set(nodes.filter((_node, i) => mask & (1 << i))),
  );
}

/** Commuting nodes with holes on both sides. */
function commuting(node: PatternNode): PatternNode[] {
  if (node.type !== "inner") return [];
  const [left, , right] = node.children;
  const isOpen = node.commutes && left && right && holesIn(left).length > 0 && holesIn(right).length > 0;
  return [...(isOpen ? [node] : []), ...node.children.flatMap(commuting)];
}
