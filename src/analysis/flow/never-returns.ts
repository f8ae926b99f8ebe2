import type { SyntaxNode } from "../../syntax/index.js";
import { classesNamed } from "../classes/class-index.js";
import { referencesAt } from "../names/declarations.js";
import { isDefinedInProject } from "../names/functions.js";
import { originOf } from "../types/origin.js";

/** Does control never come back from this call of the library: does it end the program, or jump far away? */
export function neverReturns(node: SyntaxNode): boolean {
  const { bareCalls, calls, flow } = node.tree.language;
  if (node.isLeaf) return bareCalls.includes(node.text.toLowerCase()) && node.field !== "function";
  if (flow.neverReturn.length === 0 || !node.is(calls)) return false;
  const called = node.text.split(/[\s(]/, 1)[0]!;
  return flow.neverReturn.includes(called) && isOfLibrary(node, called);
}

/** Is what is called the library's own, and nothing of the project, or of another library, that has its name? */
function isOfLibrary(call: SyntaxNode, called: string): boolean {
  const first = [...call.descendants()].find((one) => one.isLeaf && one.named);
  const to = first && referencesAt(first).find((reference) => reference.to)?.to;
  const holder = /^(\w+)(?:\.|::)/.exec(called)?.[1];
  if (to) {
    const isModule = holder !== undefined && to.as === "import";
    return isModule && originOf(first)?.module?.replace(/^node:/, "") === holder;
  }
  return holder === undefined
    ? !/^\w+$/.test(called) || isDefinedInProject(called, call.tree) === undefined
    : classesNamed(call.tree, holder).classes.length === 0;
}
