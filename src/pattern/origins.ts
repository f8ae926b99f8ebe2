import type { Import, SyntaxNode } from "../syntax/index.js";

/** Says whether a name, or a chain of members, comes from where something is wanted from. */
export type OriginOracle = (node: SyntaxNode, wanted: Import) => "yes" | "no" | "unknown";

let oracle: OriginOracle = () => "unknown";

/** Tells patterns how to find out where names come from, which they cannot know themselves: said once, by `analysis/`. */
export function tellOrigins(how: OriginOracle): void {
  oracle = how;
}

/** Does this node name what a `need` in a pattern stands for? */
export const originAt: OriginOracle = (node, wanted) => oracle(node, wanted);
