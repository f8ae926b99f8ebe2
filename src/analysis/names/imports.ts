import { oncePerTree, type ImportStatement } from "../../syntax/index.js";

/** All that brings names into a file, wherever it stands. */
export const importsIn = oncePerTree((tree): readonly ImportStatement[] =>
  tree.language.imports.everywhere(tree),
);
