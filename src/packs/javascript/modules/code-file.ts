import { nameInFile } from "../../../core.js";
import type { SyntaxNode, SyntaxTree } from "../../../core.js";

/** A file of a package, by its path from the project's root. */
export interface CodeFile {
  readonly path: string;
  readonly tree: SyntaxTree;
}

/** The uses of a name that nothing in the file declares: what the loader of the file gives it. */
export function given(name: string, tree: SyntaxTree): SyntaxNode[] {
  return nameInFile(name, tree)
    .references.filter(({ member, to }) => !member && !to)
    .map(({ node }) => node);
}

/** Does a file use what Node gives to CommonJS files alone? Any other may be a script that pages load. */
export function isCommonJs(tree: SyntaxTree): boolean {
  return ["require", "module", "exports", "__filename", "__dirname"].some(
    (name) => given(name, tree).length > 0,
  );
}

/** The statement of the file, not of a block in it, in which a node stands. */
export function topStatement(node: SyntaxNode): SyntaxNode {
  return node.parent?.is("program")
    ? node
    : [...node.ancestors()].find((above) => above.parent?.is("program"))!;
}
