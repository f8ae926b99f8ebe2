import type { Check } from "../node/index.js";
import type { PlanChange } from "../plan/index.js";
import type { Compared, Ran } from "./compare.js";
import type { Figure } from "./figures.js";

/** One check on the old code and on the new. */
export interface Proof {
  readonly check: Check;
  readonly before: Ran;
  readonly after: Ran;
  /**
   * `same`: the new code does what the old did, as far as the check compares it. `different`: it does not. `skipped`: the
   * check did not run. `failing`: it fails on the old code already. `flaky`: it does not do the same twice. The last three
   * prove nothing.
   */
  readonly verdict: "same" | "different" | "skipped" | "failing" | "flaky";
  /** Why it proves nothing, in the check's own words where it has some. */
  readonly why?: string;
  readonly compared: Compared;
  readonly figures: readonly Figure[];
}

/** A change that checks do not stand. */
export interface SetAside {
  readonly change: PlanChange;
  readonly check: string;
  /** What is different with it, for people. */
  readonly lines: readonly string[];
}

/** What a proof came to. */
export interface Account {
  /** All changes together, as they were asked for. */
  readonly proofs: readonly Proof[];
  /** What is kept, and how the checks do with it: the same as `proofs` where nothing was set aside. */
  readonly kept: readonly PlanChange[];
  readonly final: readonly Proof[];
  readonly setAside: readonly SetAside[];
  /** Checks whose culprit was not found, with the reason. */
  readonly unsettled: readonly { readonly check: string; readonly why: string }[];
  /** How often a check was run. */
  readonly runs: number;
  /** What could not be copied, and was not there for the checks. */
  readonly unreadable: readonly string[];
}

/** Something to tell somebody who waits. */
export type Progress =
  | { readonly is: "running"; readonly check: string; readonly on: "old" | "new" }
  | { readonly is: "searching"; readonly check: string; readonly runs: number; readonly changes: number };
