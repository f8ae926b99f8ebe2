import type { GrammarNames } from "./grammar-names.js";
import { arraysFor, type NodeArrays, type NodeId } from "./node-arrays.js";

interface Collapsed {
  readonly arrays: NodeArrays;
  /** The node that now stands for one of the old numbers. */
  moved(n: NodeId): NodeId;
}

/**
 * Takes out the nodes that say nothing: those of the grammar's chain kinds with a single child of the same
 * range, where the child takes their place and their field, and tokens that are all of a name.
 */
export function collapsed(nodes: NodeArrays, { chains, wordNames, named }: GrammarNames): Collapsed {
  if (!chains) return { arrays: nodes, moved: (n) => n };
  const { kindIds, starts, ends, after, parents, fieldIds } = nodes;
  /** Is a token all that a name consists of? The name stays. */
  const isWord = (n: NodeId): boolean =>
    wordNames !== undefined && n > 0 && wordNames[kindIds[n - 1]!] === true && isAllOf(n - 1);
  const isAllOf = (n: NodeId): boolean =>
    after[n] === n + 2 && starts[n] === starts[n + 1] && ends[n] === ends[n + 1] && !named[kindIds[n + 1]!];
  const saysMore = (n: NodeId): boolean =>
    !chains[kindIds[n]!] ||
    after[n] === n + 1 ||
    after[n + 1] !== after[n] ||
    starts[n] !== starts[n + 1] ||
    ends[n] !== ends[n + 1];
  const says = (n: NodeId): boolean => saysMore(n) && !isWord(n);
  // Where each old node's number ends up; a node that goes shares the number of the one that stays for it.
  const places = new Uint32Array(nodes.size + 1);
  let size = 0;
  for (let n = 0; n < nodes.size; n++) {
    places[n] = isWord(n) ? size - 1 : size;
    if (says(n)) size++;
  }
  places[nodes.size] = size;
  if (size === nodes.size) return { arrays: nodes, moved: (n) => n };

  const arrays = arraysFor(size);
  let outermost = -1;
  for (let n = 0; n < nodes.size; n++) {
    if (isWord(n)) continue;
    if (outermost < 0) outermost = n;
    if (!says(n)) continue;
    const to = places[n]!;
    arrays.kindIds[to] = kindIds[n]!;
    arrays.starts[to] = starts[n]!;
    arrays.ends[to] = ends[n]!;
    arrays.after[to] = places[after[n]!]!;
    arrays.parents[to] = parents[outermost]! < 0 ? -1 : places[parents[outermost]!]!;
    arrays.fieldIds[to] = fieldIds[outermost]!;
    outermost = -1;
  }
  return { arrays, moved: (n) => places[n]! };
}
