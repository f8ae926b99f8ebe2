import type { Answer } from "../analysis/index.js";
import type { Match } from "./match.js";
import type { Trust } from "./levels.js";

/** A question about a match. */
export interface Condition {
  /** What must hold, as a sentence for the rule's page. */
  readonly must: string;
  /** What trust is left when the answer is unknown. */
  readonly unknownIs: Exclude<Trust, "certain">;
  ask(match: Match): Answer;
}

/** A condition of one's own. An unknown answer leaves the change `likely` unless said otherwise. */
export function condition(
  must: string,
  ask: (match: Match) => Answer,
  options: { unknownIs?: Exclude<Trust, "certain"> } = {},
): Condition {
  return { must, ask, unknownIs: options.unknownIs ?? "likely" };
}
