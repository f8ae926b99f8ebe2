import type { ImportStatement, SyntaxTree } from "../../syntax/index.js";

const known = new WeakMap<SyntaxTree, readonly ImportStatement[]>();

/** All that brings names into a file, wherever it stands. */
export function importsIn(tree: SyntaxTree): readonly ImportStatement[] {
  let found = known.get(tree);
  if (!found) known.set(tree, (found = tree.language.imports.everywhere(tree)));
  return found;
}
