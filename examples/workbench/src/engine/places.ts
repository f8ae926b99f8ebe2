import { condition, no, type Condition, type Match, type Rule } from "uvran/core";
import type { Asked, Filled, Place } from "./protocol";

/**
 * A rule that rewrites nothing and tells of each place that its old code fits: what the holes stand for, and what the conditions
 * answer there.
 */
export function recording(rule: Rule, text: string, tell: (place: Place, match: Match) => void): Rule {
  const recorder = condition("the place is recorded", (match) => {
    // Code inside of other files has offsets of its own.
    if (match.tree.text === text) tell(placeOf(rule, match), match);
    return no("file.part", "the place is recorded");
  });
  return { ...rule, given: [recorder] };
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
