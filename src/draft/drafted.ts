import { unknown } from "../analysis/index.js";
import { condition, type Condition } from "../rules/index.js";

/**
 * Stands in a rule that was drafted from edits until its author takes it away: edits show what was changed, and not when it must
 * not be. With it no change of the rule is more than `likely`.
 */
export function drafted(): Condition {
  return condition("its author has thought of the cases in which it must not be done", (match) =>
    unknown("own.drafted", "the rule was drafted from edits, and nobody has vouched for it yet", match.node),
  );
}
