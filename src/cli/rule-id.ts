import { Problem } from "../node/problem.js";
import { isRuleId } from "../rules/index.js";

/** Throws a Problem for what is no id for a rule. */
export function checkRuleId(id: string): void {
  if (!isRuleId(id))
    throw new Problem(
      `"${id}" is no id for a rule: write the language, a slash and words with hyphens, as in python/lit-smoker.`,
    );
}
