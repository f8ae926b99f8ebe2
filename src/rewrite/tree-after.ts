import { reparse, type SyntaxTree } from "../syntax/index.js";
import { applyEdits, sorted, type Edit } from "./edits.js";

/** The tree of a whole file after edits. Throws a RangeError when two of them overlap. */
export function treeAfter(tree: SyntaxTree, edits: readonly Edit[]): SyntaxTree {
  return reparse(tree, sorted(edits), applyEdits(tree.text, edits));
}
