import { oncePerTree, type ImportStatement, type ListedImport, type SyntaxNode } from "../../syntax/index.js";
import { referencesAt } from "./declarations.js";

/** All that brings names into a file, wherever it stands. */
export const importsIn = oncePerTree((tree): readonly ImportStatement[] =>
  tree.language.imports.everywhere(tree),
);

/** The import that a name means by itself, where nothing else of the file has the name; undefined for any other name. */
export function importOf(name: SyntaxNode): ListedImport | undefined {
  const [reference] = referencesAt(name);
  if (!reference || reference.member || (reference.to && reference.to.as !== "import")) return undefined;
  return importsIn(name.tree)
    .flatMap(({ imports }) => imports)
    .find(({ local }) => local === name.text);
}
