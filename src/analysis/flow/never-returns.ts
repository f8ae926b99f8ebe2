import type { SyntaxNode } from "../../syntax/index.js";
import { referencesAt } from "../names/declarations.js";

/** Does control never come back from this call: does it end the program, or jump far away? */
export function neverReturns(node: SyntaxNode): boolean {
  const { bareCalls, calls, flow } = node.tree.language;
  if (node.isLeaf) return bareCalls.includes(node.text.toLowerCase()) && node.field !== "function";
  if (flow.neverReturn.length === 0 || !node.is(calls)) return false;
  if (!flow.neverReturn.includes(node.text.split(/[\s(]/, 1)[0]!)) return false;
  // A function of the file's own that is called the same may well come back.
  const first = [...node.descendants()].find((one) => one.isLeaf && one.named);
  const to = first && referencesAt(first).find((reference) => reference.to)?.to;
  return to === undefined || to.as === "import";
}
