import type { GrammarNames } from "../grammar-names.js";
import type { NodeArrays, NodeId } from "../node-arrays.js";

/** Makes kinds that are two names for one thing the same. */
export function renameKinds({ size, kindIds }: NodeArrays, sameKind: ReadonlyMap<number, number>): void {
  for (let n = 0; n < size; n++) kindIds[n] = sameKind.get(kindIds[n]!) ?? kindIds[n]!;
}

/** The nodes that must not be empty but are. */
export function emptyNodes({ size, kindIds, after }: NodeArrays, neverEmpty: readonly boolean[]): NodeId[] {
  const result: NodeId[] = [];
  for (let n = 0; n < size; n++) if (neverEmpty[kindIds[n]!] && after[n] === n + 1) result.push(n);
  return result;
}

/** Takes white space out of the ends of nodes that the grammar counts it to. */
export function cutBlankEnds(
  text: string,
  { size, kindIds, starts, ends }: NodeArrays,
  { withLineEnd }: GrammarNames,
): void {
  if (!withLineEnd) return;
  for (let n = 0; n < size; n++) {
    if (!withLineEnd[kindIds[n]!]) continue;
    while (ends[n]! > starts[n]! && /\s/.test(text[ends[n]! - 1]!)) ends[n]!--;
  }
}

/** Takes the carriage return of a line end out of the ends of nodes. */
export function cutLineEnds(text: string, { size, ends }: NodeArrays): void {
  for (let n = 0; n < size; n++) {
    const end = ends[n]!;
    if (text[end - 1] === "\r" && text[end] !== "\r") ends[n] = end - 1;
  }
}
