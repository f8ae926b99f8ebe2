import type { SyntaxNode } from "../../syntax/index.js";
import { neverThrows } from "../library/called.js";
import { referencesAt } from "../names/declarations.js";

/** A bare name may be a call; that of a variable in sight is none. */
function isLocalRead(node: SyntaxNode): boolean {
  if (!node.isLeaf || !node.is(node.tree.language.flow.mayThrow)) return false;
  // The name in `hive.weigh` does nothing by itself; the call does.
  if (node.field === "method" && node.parent?.child("receiver")) return true;
  return referencesAt(node).some(
    ({ to, member }) => !member && (to?.as === "local" || to?.as === "parameter"),
  );
}

/** A comparison that asks only whether two things are the same one, which runs no code of theirs. */
function isIdentityTest(node: SyntaxNode): boolean {
  const { identityTests } = node.tree.language.flow;
  if (identityTests.length === 0) return false;
  const { parts } = node;
  return (
    parts.length > 1 &&
    parts.slice(1).every((part, i) => {
      const operator = node.tree.text.slice(parts[i]!.end, part.start).trim().replace(/\s+/g, " ");
      return identityTests.includes(operator);
    })
  );
}

/** Is this of a kind that may throw, and yet certainly does not: a function that the library says never throws, a number declared? */
export function throwsNothing(node: SyntaxNode): boolean {
  const { language } = node.tree;
  if (node.is(language.calls)) return neverThrows(node);
  if (isIdentityTest(node) || isLocalRead(node)) return true;
  if (!node.is("init_declarator")) return false;
  const declaration = node.closest(["declaration"]);
  const type = declaration?.child("type");
  const isNumber =
    type?.is(["primitive_type", "sized_type_specifier"]) ||
    /^(size_t|ssize_t|u?int\d+_t|unsigned)\b/.test(type?.text ?? "");
  return isNumber === true || node.child("declarator")?.is("pointer_declarator") === true;
}
