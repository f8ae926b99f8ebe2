import { importsIn } from "../../../core.js";
import type { SyntaxTree } from "../../../core.js";

/** Methods of the library's `Objects` that the one of the standard library has by another name. */
const METHODS = ["equal", "hashCode"];

/**
 * Is all that a file uses of the library's `Objects` what the standard library's has as well? The one can take the other's
 * name then.
 */
export function movesAsWhole(tree: SyntaxTree): boolean {
  const found = importsIn(tree).filter(({ imports }) => imports.some(({ local }) => local === "Objects"));
  const [only, ...more] = found;
  if (only?.module !== "com.google.common.base" || only.form !== undefined || more.length > 0) return false;
  const uses = tree.root.mentions("Objects").filter((node) => !only.node.holds(node));
  return uses.every(
    ({ parent, field }) =>
      field === "object" &&
      parent?.is("method_invocation") === true &&
      METHODS.includes(parent.child("name")!.text),
  );
}
