import { canBeMissingHere, condition, mayBeThere, rule } from "../../index.js";
import type { Hole, Match, Rule, Snippet, SyntaxNode, Trial } from "../../index.js";

/** Tests of one language for a value being there or being gone. */
export interface TestSpec {
  readonly id: string;
  readonly what: Hole;
  readonly there: readonly Snippet[];
  readonly gone: readonly Snippet[];
  readonly mentions: readonly string[];
  readonly trials: readonly Trial[];
}

/** A rule that reports tests of what is certainly there, by what comes before on every way. */
export function needlessTestRule({ id, what, there, gone, mentions, trials }: TestSpec): Rule {
  const isGone = (match: Match): boolean => match.alternative >= there.length;
  return rule({
    id,
    kind: "smell",
    title: "Do not ask whether what is there is there",
    why: "A test that always comes out the same way makes the reader look for the case in which it does not, and hides code that never runs.",
    was: [...there, ...gone],
    mentions,
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
      return `this is always ${isGone(match) ? "false" : "true"}: ${says}`;
    },
    trials,
  });
}

/** `$x` is a node with the name in it. */
function leafOf(node: SyntaxNode): SyntaxNode {
  return node.isLeaf ? node : (node.parts[0] ?? node);
}
