import { referencesAt, referencesOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { isPlainName } from "./names.js";

/** The members that a pattern takes, each with the variable that it goes to; undefined for one that does more than that. */
export function simplePattern(pattern: SyntaxNode): { key: string; local: SyntaxNode }[] | undefined {
  if (!pattern.is("object_pattern")) return undefined;
  const found = pattern.parts.map((part) => {
    if (part.is("shorthand_property_identifier_pattern")) return { key: part.text, local: part };
    const [key, local] = [part.child("key"), part.child("value")];
    if (!part.is("pair_pattern") || !key?.is("property_identifier") || !local?.is("identifier"))
      return undefined;
    return { key: key.text, local };
  });
  return found.some((one) => one === undefined) ? undefined : found.flatMap((one) => one ?? []);
}

/** Does a variable keep what its declaration gives it? An import does. */
export function isKept(local: SyntaxNode): boolean {
  const to = referencesAt(local).find((one) => !one.member)?.to;
  if (!to || to.at.length !== 1 || !isPlainName(to.name)) return false;
  return referencesOf(to).every(({ does, node }) => node.same(local) || does === "read");
}
