import { no } from "../analysis/index.js";
import { condition, type Around, type Match, type Rule } from "../rules/index.js";
import { Engine } from "./project.js";

/** A place that a rule fits, before any condition is asked. */
export interface Fitting {
  readonly rule: Rule;
  readonly match: Match;
}

/** The places of a file that rules fit, whatever their conditions say, for those who ask something of their own. */
export async function fitting(
  rules: readonly Rule[],
  path: string,
  text: string,
  surroundings: Omit<Around, "path"> = {},
): Promise<readonly Fitting[]> {
  const found: Fitting[] = [];
  const asking = rules.map((rule): Rule => {
    const seen = condition("the place is noted", (match) => {
      found.push({ rule, match });
      return no("form.fits", "the place is noted");
    });
    return { ...rule, given: [seen] };
  });
  await new Engine(asking, surroundings).file(path, text);
  return found;
}
