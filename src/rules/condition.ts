import type { Answer } from "../analysis/index.js";
import type { Hole } from "../pattern/index.js";
import type { Match } from "./match.js";
import type { Trust } from "./levels.js";

/** A question about a match. */
export interface Condition {
  /** What must hold, as a sentence for the rule's page. */
  readonly must: string;
  /** What trust is left when the answer is unknown. */
  readonly unknownIs: Exclude<Trust, "certain">;
  /** Where this is false the question does not arise, and nothing is said of it. */
  readonly when?: (match: Match) => boolean;
  /** The holes that it asks about, so that a rule without them can be told. */
  readonly about?: readonly Hole[];
  ask(match: Match): Answer;
}

/** What is said of a condition beside what must hold. */
export interface ConditionOptions {
  readonly unknownIs?: Exclude<Trust, "certain">;
  readonly when?: (match: Match) => boolean;
  readonly about?: readonly Hole[];
}

/** A condition of one's own. An unknown answer leaves the change `likely` unless said otherwise. */
export function condition(
  must: string,
  ask: (match: Match) => Answer,
  { unknownIs = "likely", when, about }: ConditionOptions = {},
): Condition {
  return { must, ask, unknownIs, ...(when ? { when } : {}), ...(about ? { about } : {}) };
}
