import { originOf, referencesAt, valuesGiven } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";

/** Is a name given a path object, and nothing else? */
export function isPath(node: SyntaxNode): boolean {
  const to = node.is("identifier") ? referencesAt(node).find((one) => one.to)?.to : undefined;
  const [value, more] = (to && valuesGiven(to)) ?? [];
  const first =
    value?.is("binary_operator") && value.child("operator")?.text === "/" ? value.firstPart : value;
  const made = first?.is("call") ? originOf(first.child("function")!) : undefined;
  return more === undefined && made?.module === "pathlib" && made.name === "Path";
}
