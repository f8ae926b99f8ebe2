import { canBeMissingHere, condition, mayBeThere, rule, tested } from "../../core.js";
import type { Hole, Rule, SyntaxNode, Trial } from "../../core.js";

/** Tests of one language for a value being there or being gone. */
export interface TestSpec {
  readonly id: string;
  readonly what: Hole;
  readonly trials: readonly Trial[];
}

/** A rule that reports tests of what is certainly there, by what comes before on every way. */
export function needlessTestRule({ id, what, trials }: TestSpec): Rule {
  return rule({
    id,
    kind: "smell",
    title: "Remove a null check whose result never changes",
    why: "A test that always comes out the same way makes the reader look for the case in which it does not, and hides code that never runs.",
    was: tested(what),
    where: [
      (match) => mayBeThere(leafOf(match.the(what))),
      (match) => canBeMissingHere(leafOf(match.the(what))).is === "no",
    ],
    given: [
      condition("it is there on every way to here", (match) => {
        const { evidence } = canBeMissingHere(leafOf(match.the(what)));
        return { is: "yes", evidence };
      }),
    ],
    advice: (match) => {
      const { says } = canBeMissingHere(leafOf(match.the(what))).evidence;
      return `this is always ${match.tests[0]!.isThere ? "true" : "false"}: ${says}`;
    },
    trials,
  });
}

/** `$x` is a node with the name in it. */
function leafOf(node: SyntaxNode): SyntaxNode {
  return node.isLeaf ? node : (node.firstPart ?? node);
}
