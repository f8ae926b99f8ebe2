import { condition, isSideEffectFree, mayRunAnyway } from "../../index.js";
import type { Condition, Hole, Match, Snippet } from "../../index.js";

/** An old form, and what its tests tell apart. */
export interface Form<Tests extends string> {
  readonly was: Snippet;
  readonly tests: Tests;
}

/** The form that fitted. */
export function formOf<Tests extends string>(forms: readonly Form<Tests>[], match: Match): Form<Tests> {
  return forms[match.alternative]!;
}

/** What was evaluated to be tested and again to be used is now evaluated once. */
export function evaluatedOnce(hole: Hole): Condition {
  return condition(`evaluating \`${hole.name}\` once instead of twice makes no difference`, (match) =>
    isSideEffectFree(match.the(hole)),
  );
}

/** The default may be evaluated although it is not needed. */
export function cheapDefault(hole: Hole): Condition {
  return condition(`evaluating \`${hole.name}\` although it is not needed makes no difference`, (match) =>
    mayRunAnyway(match.the(hole)),
  );
}
