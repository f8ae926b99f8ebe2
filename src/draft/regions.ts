import { significantChildren, unwrapped, type NodeId, type SyntaxTree } from "../syntax/index.js";
import type { Keys } from "./keys.js";
import { one, type Run } from "./run.js";

/** Two nodes of which the second is what the first has become, although something in it has changed. */
export interface Kept {
  readonly before: NodeId;
  readonly after: NodeId;
}

/** A part of a file that an edit changed: what stood there, and what stands there now. */
export interface Region {
  readonly before: Run;
  readonly after: Run;
  /** The nodes around it on both sides, the root first. */
  readonly around: readonly Kept[];
}

/** The parts in which two trees differ, and which children of a node became which, by the node before. */
export interface Difference {
  readonly regions: readonly Region[];
  readonly children: ReadonlyMap<NodeId, readonly Kept[]>;
}

/** How much of two nodes must be the same for one to be what the other has become. */
const ALIKE = 0.3;
/** Gaps that are larger on both sides are not searched for nodes that are alike. */
const MOST_PAIRED = 60;
/** Lists of which more than so many pairs would have to be compared differ as a whole between what they begin and end with. */
const LARGEST_TABLE = 9_000_000;

/**
 * The parts in which two versions of a file differ, by their trees: as small as they can be said in whole nodes.
 * White space, comments and what else does not count in a comparison make no difference.
 */
export function regionsBetween(
  before: SyntaxTree,
  after: SyntaxTree,
  keys: Keys,
  from: NodeId = 0,
  to: NodeId = 0,
): Difference {
  const regions: Region[] = [];
  const children = new Map<NodeId, Kept[]>();
  const pair = (around: readonly Kept[], a: NodeId, b: NodeId): void => {
    const list = around.at(-1)!.before;
    if (!children.has(list)) children.set(list, []);
    children.get(list)!.push({ before: a, after: b });
  };
  const inNodes = (a: NodeId, b: NodeId, around: readonly Kept[]): void => {
    [a, b] = [unwrapped(before, a), unwrapped(after, b)];
    if (keys.of(before, a) === keys.of(after, b)) return;
    const isWhole =
      before.kindIds[a] !== after.kindIds[b] ||
      before.isLeaf(a) ||
      after.isLeaf(b) ||
      (before.language.strings.includes(before.kind(a)) && !hasCodeInside(before, a));
    if (isWhole) {
      regions.push({ before: one(before, a), after: one(after, b), around });
      return;
    }
    inLists(significantChildren(before, a), significantChildren(after, b), [
      ...around,
      { before: a, after: b },
    ]);
  };
  const inLists = (as: readonly NodeId[], bs: readonly NodeId[], around: readonly Kept[]): void => {
    const kept = aligned(
      as.map((a) => keys.of(before, a)),
      bs.map((b) => keys.of(after, b)),
    );
    let [i, k] = [0, 0];
    for (const [x, y] of [...kept, [as.length, bs.length] as const]) {
      inGap(as.slice(i, x), bs.slice(k, y), around);
      if (x < as.length) pair(around, as[x]!, bs[y]!);
      [i, k] = [x + 1, y + 1];
    }
  };
  const inGap = (as: readonly NodeId[], bs: readonly NodeId[], around: readonly Kept[]): void => {
    if (as.length === 0 && bs.length === 0) return;
    let [i, k] = [0, 0];
    for (const [x, y] of [...partners(as, bs), [as.length, bs.length] as const]) {
      const [old, now] = [as.slice(i, x), bs.slice(k, y)];
      if (old.length === 1 && now.length === 1) {
        pair(around, old[0]!, now[0]!);
        inNodes(old[0]!, now[0]!, around);
      } else if (old.length + now.length > 0)
        regions.push({ before: { tree: before, nodes: old }, after: { tree: after, nodes: now }, around });
      if (x < as.length) {
        pair(around, as[x]!, bs[y]!);
        inNodes(as[x]!, bs[y]!, around);
      }
      [i, k] = [x + 1, y + 1];
    }
  };
  /** Of two lists the nodes that are alike, in order, so that most of them find a partner. */
  const partners = (as: readonly NodeId[], bs: readonly NodeId[]): (readonly [number, number])[] => {
    if (as.length * bs.length <= 1 || as.length * bs.length > MOST_PAIRED ** 2) return [];
    const alike = as.map((a) => bs.map((b) => likeness(before, a, after, b)));
    const best = as.map(() => bs.map(() => 0)).concat([bs.map(() => 0)]);
    const at = (i: number, k: number): number => best[i]?.[k] ?? 0;
    for (let i = as.length - 1; i >= 0; i--)
      for (let k = bs.length - 1; k >= 0; k--) {
        const both = alike[i]![k]!;
        best[i]![k] = Math.max(at(i + 1, k), at(i, k + 1), both > ALIKE ? both + at(i + 1, k + 1) : 0);
      }
    const found: (readonly [number, number])[] = [];
    for (let [i, k] = [0, 0]; i < as.length && k < bs.length;) {
      const both = alike[i]![k]!;
      if (both > ALIKE && at(i, k) === both + at(i + 1, k + 1)) found.push([i++, k++]);
      else if (at(i, k) === at(i + 1, k)) i++;
      else k++;
    }
    return found;
  };
  inNodes(from, to, []);
  return { regions, children };
}

/** Is there code in a string, and not only text? */
function hasCodeInside(tree: SyntaxTree, string: NodeId): boolean {
  return tree.children(string).some((child) => !tree.isLeaf(child));
}

/** From 0 to 1: how many of the leaves of two nodes of one kind are the same. */
function likeness(treeA: SyntaxTree, a: NodeId, treeB: SyntaxTree, b: NodeId): number {
  if (treeA.kindIds[a] !== treeB.kindIds[b] || !treeA.isNamed(a)) return 0;
  const counts = new Map<string, number>();
  const sizes = [0, 0];
  const leaves = function* (tree: SyntaxTree, n: NodeId): Generator<string> {
    for (let m = n; m < tree.after[n]!; m++) if (tree.isLeaf(m) && tree.isNamed(m)) yield tree.textOf(m);
  };
  for (const leaf of leaves(treeA, a)) {
    counts.set(leaf, (counts.get(leaf) ?? 0) + 1);
    sizes[0]!++;
  }
  let both = 0;
  for (const leaf of leaves(treeB, b)) {
    sizes[1]!++;
    const left = counts.get(leaf) ?? 0;
    if (left === 0) continue;
    counts.set(leaf, left - 1);
    both++;
  }
  return sizes[0]! + sizes[1]! === 0 ? 0 : (2 * both) / (sizes[0]! + sizes[1]!);
}

/**
 * The longest common subsequence of two lists, as pairs of places. What both begin and end with is set aside first; the
 * rest is worked out by the table of lengths.
 */
function aligned(as: readonly number[], bs: readonly number[]): (readonly [number, number])[] {
  let from = 0;
  while (from < as.length && from < bs.length && as[from] === bs[from]) from++;
  let tail = 0;
  while (
    tail < as.length - from &&
    tail < bs.length - from &&
    as[as.length - 1 - tail] === bs[bs.length - 1 - tail]
  )
    tail++;
  const found: (readonly [number, number])[] = Array.from({ length: from }, (_, i) => [i, i] as const);
  const tailPairs = (): (readonly [number, number])[] =>
    Array.from({ length: tail }, (_, i) => [as.length - tail + i, bs.length - tail + i] as const);
  const [m, n] = [as.length - from - tail, bs.length - from - tail];
  if (m * n > LARGEST_TABLE) return [...found, ...tailPairs()];
  const wide = n + 1;
  const lengths = new Uint32Array((m + 1) * wide);
  for (let i = m - 1; i >= 0; i--)
    for (let k = n - 1; k >= 0; k--)
      lengths[i * wide + k] =
        as[from + i] === bs[from + k]
          ? lengths[(i + 1) * wide + k + 1]! + 1
          : Math.max(lengths[(i + 1) * wide + k]!, lengths[i * wide + k + 1]!);
  for (let [i, k] = [0, 0]; i < m && k < n;) {
    if (as[from + i] === bs[from + k]) found.push([from + i++, from + k++]);
    else if (lengths[(i + 1) * wide + k]! >= lengths[i * wide + k + 1]!) i++;
    else k++;
  }
  return [...found, ...tailPairs()];
}
