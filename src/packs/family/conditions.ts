import { condition, isSideEffectFree, mayRunAnyway, weakest, yes } from "../../core.js";
import type { Answer, Condition, Hole, Match, PresenceTest } from "../../core.js";

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
