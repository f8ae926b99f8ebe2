import type { SyntaxNode } from "../../syntax/index.js";
import { isDefinedInProject } from "../names/functions.js";
import { calledFromLibrary } from "../library/called.js";

/**
 * The block around a node that may run at another time than it is handed on: one that the flow of the function takes for
 * code that runs where it stands. Blocks around `place` too are none: what is asked runs with them.
 */
export function keptBlockAround(node: SyntaxNode, place: SyntaxNode): SyntaxNode | undefined {
  const { delayed, functions, classes } = node.tree.language;
  for (let at = node.parent; at && !at.is(functions) && !at.is(classes); at = at.parent) {
    if (at.is(delayed) && !at.holds(place) && !runsAtOnce(at)) return at;
  }
  return undefined;
}

/** Is a block, or a generator, run to its end before the call that it is handed to is over? */
function runsAtOnce(block: SyntaxNode): boolean {
  const { argumentLists, calls, flow, memberReads } = block.tree.language;
  const above = block.parent;
  const call = above?.is(argumentLists) ? above.parent : above;
  if (!call?.is(calls)) return false;
  const row = calledFromLibrary(call);
  // What `list` and `sum` keep of a generator are its items.
  const isReadWhole = row?.effect === "reads" && !call.firstPart?.is(memberReads);
  if (row) return row.runs === true || row.keeps !== true || isReadWhole;
  const isLazy = /\.lazy\b/.test(call.firstPart?.text ?? "");
  const method = call.child("method")?.text ?? "";
  return !isLazy && flow.runsBlocks.test(method) && isDefinedInProject(method, block.tree) === undefined;
}
