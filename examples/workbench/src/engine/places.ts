import type { Condition, Fitting, Match, Rule } from "uvran/core";
import type { Asked, Filled, Place } from "./protocol";

/** What is known of a place that a rule fits; undefined inside of other files, whose code has offsets of its own. */
export function placeIn(text: string, { rule, match }: Fitting): Place | undefined {
  return match.tree.text === text ? placeOf(rule, match) : undefined;
}

function placeOf(rule: Rule, match: Match): Place {
  const { start, end, captures } = match.found;
  const holes = [...captures].flatMap(([hole, capture]): Filled[] => {
    if (capture.tree !== match.tree || hole.limits.origin) return [];
    const { start, end, again = [] } = capture;
    const text = match.textOf(hole);
    return [{ start, end }, ...again].map(({ start, end }) => ({ name: hole.name, text, start, end }));
  });
  const answers = (rule.given ?? []).flatMap((one) => asked(one, match) ?? []);
  return { rule: rule.id, start, end, line: match.node.line, holes, answers };
}

/** What a condition answers; undefined where the question does not arise. */
export function asked(one: Condition, match: Match): Asked | undefined {
  try {
    if (one.when?.(match) === false) return undefined;
    const { is, evidence } = one.ask(match);
    return { must: one.must, is, says: evidence.says, line: evidence.line };
  } catch (error) {
    return { must: one.must, is: "no", says: `it cannot be asked here: ${String(error)}`, line: undefined };
  }
}
