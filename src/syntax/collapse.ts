import type { GrammarNames } from "./grammar-names.js";
import { arraysFor, type NodeArrays, type NodeId } from "./node-arrays.js";

interface Collapsed {
  readonly arrays: NodeArrays;
  /** The node that now stands for one of the old numbers. */
  moved(n: NodeId): NodeId;
}

/**
 * Takes out the nodes that say nothing: those of the grammar's chain kinds with a single child of the same
 * range. The child takes their place, and their field.
 */
export function collapsed(nodes: NodeArrays, { chains }: GrammarNames): Collapsed {
  if (!chains) return { arrays: nodes, moved: (n) => n };
  const { kindIds, starts, ends, after, parents, fieldIds } = nodes;
  const says = (n: NodeId): boolean =>
    !chains[kindIds[n]!] ||
    after[n] === n + 1 ||
    after[n + 1] !== after[n] ||
    starts[n] !== starts[n + 1] ||
    ends[n] !== ends[n + 1];
  // Where each old node's number ends up; a node that goes shares the number of the one that stays for it.
  const places = new Uint32Array(nodes.size + 1);
  let size = 0;
  for (let n = 0; n < nodes.size; n++) {
    places[n] = size;
    if (says(n)) size++;
  }
  places[nodes.size] = size;
  if (size === nodes.size) return { arrays: nodes, moved: (n) => n };

  const arrays = arraysFor(size);
  let outermost = -1;
  for (let n = 0; n < nodes.size; n++) {
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
