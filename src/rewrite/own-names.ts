import type { Import, SyntaxTree } from "../syntax/index.js";

/** Does a project declare something of its own by a name, other than what is wanted from elsewhere? */
export type OwnNames = (tree: SyntaxTree, name: string, wanted: Import) => boolean;

let known: OwnNames = () => false;

/** Hands over how that is found out, which takes more than this room knows. */
export function tellOwnNames(how: OwnNames): void {
  known = how;
}

export const mayHaveOwn: OwnNames = (tree, name, wanted) => known(tree, name, wanted);
