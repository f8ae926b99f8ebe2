import { diffArrays } from "diff";
import { significantChildren, unwrapped, type NodeId, type SyntaxTree } from "../syntax/index.js";
import type { Keys } from "./keys.js";
import { shareOfSame } from "./likeness.js";
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
/** Items that come and go between two versions of a list, more than which are not followed. */
const MOST_CHANGED = 2000;

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
  const leaves = (tree: SyntaxTree, n: NodeId): string[] => {
    const found: string[] = [];
    for (let m = n; m < tree.after[n]!; m++)
      if (tree.isLeaf(m) && tree.isNamed(m)) found.push(tree.textOf(m));
    return found;
  };
  return shareOfSame(leaves(treeA, a), leaves(treeB, b));
}

/** The places of two lists that stay, as pairs. A list in which too much has changed to be followed differs as a whole. */
function aligned(as: readonly number[], bs: readonly number[]): (readonly [number, number])[] {
  const changes = diffArrays([...as], [...bs], { maxEditLength: MOST_CHANGED });
  const found: (readonly [number, number])[] = [];
  let [i, k] = [0, 0];
  for (const { count, added, removed } of changes ?? []) {
    if (!added && !removed) for (let n = 0; n < count; n++) found.push([i + n, k + n]);
    if (!added) i += count;
    if (!removed) k += count;
  }
  return found;
}
