import type { SyntaxNode } from "../../syntax/index.js";
import { isLibraryFunction } from "../names/functions.js";

/** Is this of a kind that may throw, and yet certainly does not: a function of the C library, a number declared? */
export function throwsNothing(node: SyntaxNode): boolean {
  const { language } = node.tree;
  if (node.is(language.calls)) {
    const called = node.child("function");
    const bare = called?.text.replace(/^(::|std::)/, "") ?? "";
    return (
      called !== undefined &&
      language.flow.neverThrow.includes(bare) &&
      isLibraryFunction(called).is === "yes"
    );
  }
  if (!node.is("init_declarator")) return false;
  const declaration = node.closest(["declaration"]);
  const type = declaration?.child("type");
  const isNumber =
    type?.is(["primitive_type", "sized_type_specifier"]) ||
    /^(size_t|ssize_t|u?int\d+_t|unsigned)\b/.test(type?.text ?? "");
  return isNumber === true || node.child("declarator")?.is("pointer_declarator") === true;
}
