import { isBuiltin, isLeftAlone, isSideEffectFree, isUnchanged, weakest } from "../analysis/index.js";
import type { Hole } from "../pattern/index.js";
import { condition, type Condition } from "./condition.js";

/** The variable that `name` stands for is not written in the code that another hole stands for. */
export function neverWritten(name: Hole, { in: where }: { in: Hole }): Condition {
  return condition(`\`${name.name}\` is not written in \`${where.name}\``, (match) =>
    isLeftAlone(match.textOf(name), match.all(where), match.node),
  );
}

/** A name that the pattern spells out still means what the language defines. */
export function builtin(name: string): Condition {
  return condition(`\`${name}\` is the built-in one`, (match) => isBuiltin(name, match.node));
}

/** Evaluating the hole's code once more or once less makes no difference. */
export function sideEffectFree(hole: Hole): Condition {
  return condition(`evaluating \`${hole.name}\` has no side effect`, (match) =>
    isSideEffectFree(match.the(hole)),
  );
}

/**
 * The collection a hole stands for keeps its length and its items while the statements of another hole run.
 * Certain only for a local variable that those statements do nothing with but read items and length.
 */
export function unchangedDuring(items: Hole, { during }: { during: Hole }): Condition {
  return condition(`\`${items.name}\` does not change in \`${during.name}\``, (match) =>
    isUnchanged(match.the(items), match.all(during)),
  );
}

/** All of several conditions; the weakest answer counts. */
export function all(...conditions: readonly [Condition, ...Condition[]]): Condition {
  const [first, ...rest] = conditions;
  return condition(conditions.map((c) => c.must).join(", and "), (match) =>
    weakest([first.ask(match), ...rest.map((c) => c.ask(match))]),
  );
}
