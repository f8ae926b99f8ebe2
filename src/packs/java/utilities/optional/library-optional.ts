import { importsIn } from "../../../../core.js";
import type { SyntaxNode, SyntaxTree } from "../../../../core.js";

export const PACKAGE = "com.google.common.base";
export const FULL_NAME = `${PACKAGE}.Optional`;

/** Does a file call the library's class `Optional`? */
export function callsItOptional(tree: SyntaxTree): boolean {
  return importsIn(tree).some(
    ({ module, form, imports }) =>
      module === PACKAGE && form === undefined && imports.some(({ name }) => name === "Optional"),
  );
}

/** Is it the library's class, as a type or as the receiver of a static method? */
export function namesIt(node: SyntaxNode): boolean {
  const name = (node.is("generic_type") ? node.firstPart! : node).text.replace(/\s/g, "");
  return name === FULL_NAME || (name === "Optional" && callsItOptional(node.tree));
}

/** Does a type have it for an argument, an item or itself: `Map<String, Optional<Hive>>`? */
export function holdsIt(type: SyntaxNode): boolean {
  return (
    namesIt(type) ||
    [...type.descendants()].some(
      (part) => part.is(["type_identifier", "scoped_type_identifier"]) && namesIt(part),
    )
  );
}
