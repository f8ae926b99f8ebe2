import { condition, no, walkedByIterator, yes } from "../../core.js";
import type { Answer, Condition, Hole, Match, RuleSpec } from "../../core.js";
import { isReadHere, nameOf, ownOf, withHeader, type Own } from "./each-item.js";

/** How a language walks something without an iterator of its own. */
export interface WithoutIterator {
  readonly index: Hole;
  readonly items: Hole;
  readonly body: Hole;
  /** The type of an item with its name, as the loop's header declares it; undefined where nobody says the type. */
  readonly declared: (match: Match, own: Own | undefined, name: string) => string | undefined;
  readonly header: (declared: string, match: Match) => string;
  /** The first statement of the body, where all that it does is to give the item a name. */
  readonly own?: (match: Match) => Own | undefined;
  /** What must hold of what is walked, and of the items. */
  readonly given: readonly Condition[];
}

/** Nobody else may have the iterator: it is not there any more. */
function isOnlyHere({ loop }: Match): Answer {
  const { index, outside, nodes } = loop;
  const { statementLists } = loop.node.tree.language;
  const first = index.closest([...statementLists])?.parts.find((part) => part.holds(index));
  const isDeclared = index.parent !== undefined && /declarator$/.test(index.parent.kind);
  if (!isDeclared || !first || !nodes[0]!.holds(index))
    return no("resource.used-after", `\`${index.text}\` is declared ahead of the loop`, index);
  const [used] = nodes.length > 1 ? outside : [];
  return used
    ? no("resource.used-after", `\`${used.text}\` is used outside of the loop`, used)
    : yes("resource.used-after", `\`${index.text}\` is used in the loop only`, index);
}

/** The rule for a loop with an iterator of its own, which only reads the items, but for its id, title and trials. */
export function iteratorLoop(
  walking: WithoutIterator,
): Pick<RuleSpec, "was" | "where" | "given" | "becomes"> {
  const { index, items, body, declared, header, given } = walking;
  const own = walking.own ?? ownOf;
  const declaredIn = (match: Match): string | undefined =>
    declared(match, own(match), nameOf(match, own(match)));
  return {
    was: walkedByIterator({ index, items, body }),
    where: [(match) => declaredIn(match) !== undefined],
    given: [
      ...given,
      condition("the item is read in the loop only", isReadHere),
      condition("the iterator is used for nothing else", isOnlyHere),
    ],
    becomes: (match) =>
      withHeader(match, {
        own: own(match),
        name: nameOf(match, own(match)),
        header: header(declaredIn(match)!, match),
      }),
  };
}
