import { isMember, isSeenElsewhere, referencesAt, usesOf } from "../analysis/index.js";
import type { SyntaxNode } from "../syntax/index.js";

/** Is a local used nowhere but in some code? */
export function isUsedOnlyIn(name: SyntaxNode, code: readonly SyntaxNode[]): boolean {
  const leaf = name.isLeaf ? name : name.firstPart;
  const to = leaf?.isLeaf && referencesAt(leaf).find(({ member }) => !member)?.to;
  if (!to || isMember(to) || isSeenElsewhere(to)) return false;
  const { references, doubts } = usesOf(to);
  return (
    doubts.length === 0 &&
    references.every(({ node }) => name.holds(node) || code.some((one) => one.holds(node)))
  );
}
