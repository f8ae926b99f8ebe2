import { unwrapped, type NodeId } from "../syntax/index.js";
import type { Keys } from "./keys.js";
import { itemsOf, listKind, one, type Run } from "./run.js";

/**
 * Pieces of code of several instances of one edit, laid over each other: where they have the same shape their parts are
 * paired, down to the places at which they differ.
 */
export interface Aligned {
  /** The piece in each of the instances. */
  readonly runs: readonly Run[];
  /** The parts, where the pieces have the same shape; none where they differ as a whole. */
  readonly parts: readonly Aligned[];
  /** Do the instances differ here as a whole, so that a hole must stand for it? */
  readonly differs: boolean;
  /** What it holds side by side, where it is a list. */
  readonly list: ReturnType<typeof listKind>;
  /** Says the same as another one if this is the same. */
  readonly key: string;
}

/** Lays pieces of code over each other. */
export function align(runs: readonly Run[], keys: Keys): Aligned {
  const single = runs.every(({ nodes }) => nodes.length === 1);
  if (single) {
    const nodes = runs.map(({ tree, nodes }) => one(tree, unwrapped(tree, nodes[0]!)));
    return alignNodes(nodes, keys);
  }
  const parts = alignLists(runs, keys);
  return { runs, parts, differs: false, list: undefined, key: keyOf(runs, keys) };
}

function alignNodes(runs: readonly Run[], keys: Keys): Aligned {
  const key = keyOf(runs, keys);
  const [first] = runs;
  const kinds = new Set(runs.map(({ tree, nodes }) => tree.kindIds[nodes[0]!]));
  const node = first!.nodes[0]!;
  const { tree } = first!;
  const isLeaf =
    runs.some(({ tree, nodes }) => tree.isLeaf(nodes[0]!)) || tree.language.strings.includes(tree.kind(node));
  const isSame = new Set(key.split(" ")).size === 1;
  if (kinds.size > 1 || isLeaf) return { runs, parts: [], differs: !isSame, list: undefined, key };
  const list = listKind(tree, node);
  const lists = runs.map(({ tree, nodes }): Run => ({ tree, nodes: itemsOf(tree, nodes[0]!) }));
  const lengths = new Set(lists.map(({ nodes }) => nodes.length));
  if (lengths.size > 1 && list === undefined) return { runs, parts: [], differs: true, list, key };
  return { runs, parts: alignLists(lists, keys), differs: false, list, key };
}

/** Lists item by item; where they are not equally long, what they begin and end with, and the rest as one piece. */
function alignLists(lists: readonly Run[], keys: Keys): Aligned[] {
  const shortest = Math.min(...lists.map(({ nodes }) => nodes.length));
  const itemAt = ({ tree, nodes }: Run, place: number): Run => one(tree, nodes.at(place)!);
  const alignAt = (place: number): Aligned =>
    align(
      lists.map((list) => itemAt(list, place)),
      keys,
    );
  if (lists.every(({ nodes }) => nodes.length === shortest))
    return Array.from({ length: shortest }, (_, i) => alignAt(i));
  const isSame = (place: number): boolean =>
    new Set(lists.map((list) => keys.of(list.tree, list.nodes.at(place)!))).size === 1;
  let from = 0;
  while (from < shortest && isSame(from)) from++;
  let tail = 0;
  while (tail < shortest - from && isSame(-1 - tail)) tail++;
  const middle = lists.map(({ tree, nodes }): Run => ({
    tree,
    nodes: nodes.slice(from, nodes.length - tail),
  }));
  return [
    ...Array.from({ length: from }, (_, i) => alignAt(i)),
    { runs: middle, parts: [], differs: true, list: undefined, key: keyOf(middle, keys) },
    ...Array.from({ length: tail }, (_, i) => alignAt(i - tail)),
  ];
}

export function keyOf(runs: readonly Run[], keys: Keys): string {
  return runs.map(({ tree, nodes }) => keys.ofRun(tree, nodes)).join(" ");
}

/** The key of neighbouring parts together. */
export function keyOfParts(parts: readonly Aligned[], keys: Keys): string {
  const [first] = parts;
  if (parts.length === 1) return first!.key;
  return keyOf(
    first!.runs.map(({ tree }, i) => ({ tree, nodes: parts.flatMap(({ runs }) => runs[i]!.nodes) })),
    keys,
  );
}

/** All pieces, outermost first. */
export function* allIn(aligned: Aligned): Generator<Aligned> {
  yield aligned;
  for (const part of aligned.parts) yield* allIn(part);
}

export const nodeOf = ({ runs }: Aligned): NodeId | undefined =>
  runs[0]!.nodes.length === 1 ? runs[0]!.nodes[0] : undefined;
