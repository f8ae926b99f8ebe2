/** A check of the project, and what it found when the old code and the new were compared. */
export interface Checked {
  readonly name: string;
  /** The command that it runs. */
  readonly command: string;
  readonly verdict: "same" | "different" | "skipped" | "failing" | "flaky";
  readonly says: string;
  /** What is different, for people. */
  readonly lines: readonly string[];
}

/** What a proof found of one change. */
export interface Outcome {
  readonly is: "passed" | "set aside";
  readonly says: string;
  readonly lines: readonly string[];
}

/** What a proof found, as far as a report shows it. */
export interface Proved {
  readonly checks: readonly Checked[];
  /** Undefined for a change of which nothing was found out. */
  readonly outcomeOf: (id: string) => Outcome | undefined;
}
