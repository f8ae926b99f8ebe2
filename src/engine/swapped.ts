import { mayChangePlaces, type Answer } from "../analysis/index.js";
import { Hole } from "../pattern/index.js";
import type { Match } from "../rules/index.js";
import type { SyntaxNode } from "../syntax/index.js";

/**
 * What must hold where a comparison fitted with its sides swapped: the new code evaluates them in the order of the pattern, and
 * the file in the other one.
 */
export function swappedSides({ found: { pattern, captures, tree } }: Match): Answer[] {
  const holes = (pattern?.snippet.parts ?? []).filter((part) => part instanceof Hole);
  const placed = [...new Set(holes)].flatMap((hole) => {
    const capture = captures.get(hole);
    const [first] = capture?.tree === tree ? capture.nodes : [];
    return first === undefined ? [] : [tree.node(first)];
  });
  return placed.flatMap((late, i) =>
    placed.slice(i + 1).flatMap((early) => {
      if (early.start >= late.start) return [];
      const sides = comparedSides(early, late);
      return sides ? [mayChangePlaces([sides[0]], [sides[1]])] : [];
    }),
  );
}

/** The two sides of the nearest node around both, where that compares them. */
function comparedSides(one: SyntaxNode, other: SyntaxNode): [SyntaxNode, SyntaxNode] | undefined {
  const around = [one, ...one.ancestors()].find((node) => node.holds(other));
  const { binary } = one.tree.language;
  if (!around?.is(binary)) return undefined;
  const [first, last] = [one, other].map((inner) => around.parts.find((part) => part.holds(inner)));
  return first && last && !first.same(last) ? [first, last] : undefined;
}
