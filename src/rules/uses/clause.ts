import { checkPattern, type Snippet } from "../../pattern/index.js";
import type { Segment } from "../../rewrite/index.js";
import { Match } from "../match.js";
import type { UsePlace } from "./place.js";

/** What becomes of a use: it goes with its statement, it stays as it is, or it becomes other code. */
export type UseOutcome = "goes" | "stays" | Snippet | ((match: Match) => Snippet | readonly Segment[]);

/** A way of using a name that a rule understands. */
export interface UseClause {
  readonly pattern: Snippet;
  readonly place: UsePlace | undefined;
  readonly outcome: UseOutcome;
  /** Where it is false, the clause does not speak of the use. */
  readonly test: ((match: Match) => boolean) | undefined;
  /** May the code that fits reach beyond the statement of the use, up to the function around it? */
  readonly isWide: boolean;
  /** The kind of node around the use that the clause speaks of, where its pattern is nothing but the name. */
  readonly part: string | undefined;
}

/** A pattern of a use, on its way to a clause. */
export class UsePattern {
  constructor(
    readonly pattern: Snippet,
    readonly limits: Omit<UseClause, "pattern" | "outcome">,
  ) {
    checkPattern(pattern);
  }

  /** Only where the code that fits stands in this place. */
  as(place: UsePlace): UsePattern {
    return new UsePattern(this.pattern, { ...this.limits, place });
  }

  /** Only where this holds of the code that fits. */
  when(test: (match: Match) => boolean): UsePattern {
    const before = this.limits.test;
    const both = before ? (match: Match): boolean => before(match) && test(match) : test;
    return new UsePattern(this.pattern, { ...this.limits, test: both });
  }

  /** The pattern is of more than the statement of the use: of a block or a function around it. */
  around(): UsePattern {
    return new UsePattern(this.pattern, { ...this.limits, isWide: true });
  }

  /** For a pattern that is nothing but the name: the clause speaks of the nearest node of this kind around it. */
  in(part: string): UsePattern {
    return new UsePattern(this.pattern, { ...this.limits, part });
  }

  /** The statement goes. */
  goes(): UseClause {
    return this.#clause("goes");
  }

  /** Nothing changes here. */
  stays(): UseClause {
    return this.#clause("stays");
  }

  becomes(outcome: Exclude<UseOutcome, "goes" | "stays">): UseClause {
    return this.#clause(outcome);
  }

  #clause(outcome: UseOutcome): UseClause {
    return { pattern: this.pattern, ...this.limits, outcome };
  }
}

/** A use as a rule understands it, for `everyUseOf`. The hole of the name must stand in the pattern. */
export function use(pattern: Snippet): UsePattern {
  return new UsePattern(pattern, { place: undefined, test: undefined, isWide: false, part: undefined });
}
