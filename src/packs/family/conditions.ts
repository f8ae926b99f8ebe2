import { condition, isSideEffectFree, mayRunAnyway, weakest, yes } from "../../index.js";
import type { Answer, Condition, Hole, Match, PresenceTest, Snippet } from "../../index.js";

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

/** What must hold for each test that a reading found; so it does where the new form asked already. */
export function everyTest(
  must: string,
  ask: (match: Match, test: PresenceTest) => Answer,
  options: { unknownIs?: Condition["unknownIs"] } = {},
): Condition {
  return condition(
    must,
    (match) => {
      const [first, ...rest] = match.tests.map((test) => ask(match, test));
      return first ? weakest([first, ...rest]) : yes("value.null", "nothing is tested");
    },
    options,
  );
}

/** Everything that is tested, and used again, is evaluated once from now on. */
export function testedOnce(): Condition {
  return everyTest("evaluating what is tested once instead of twice makes no difference", (_match, test) =>
    test.times === 0
      ? yes("effect.evaluated", "it is evaluated as often as before", test.subject)
      : isSideEffectFree(test.subject),
  );
}
