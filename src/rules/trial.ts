import type { LanguageId } from "../syntax/index.js";
import { dedented } from "../rewrite/index.js";
import type { Trust } from "./levels.js";

/** A rule's own test: a piece of code and what the rule must do with it. */
export interface Trial {
  readonly language: LanguageId;
  readonly was: string;
  /** The code afterwards; the same as `was` where the rule keeps its hands off. */
  readonly now: string;
  /** The trust the change must have. */
  readonly trust?: Trust;
  /** Other files by their paths, before and after, for a rule that reaches into them. */
  readonly beside?: Readonly<Record<string, readonly [was: string, now: string]>>;
  /** Part of what a rule that only reports must say. */
  readonly says?: string;
  /** The version of the language that the code must run on. */
  readonly target?: string;
  /** What the config sets of the rule. */
  readonly options?: unknown;
  /** Part of the reason with which the change must be held back. */
  readonly because?: string;
}

/** Takes away the indentation a trial has because it stands in a rule file. */
function block(code: string): string {
  return dedented(code.replace(/^\n/, "").replace(/\n[ \t]*$/, "\n"));
}

/** Trials in one language, for code that must run on this version of it where one is given, and a rule for which this is set. */
export function trialsIn(language: LanguageId, version?: string, options?: unknown) {
  const target = {
    ...(version === undefined ? {} : { target: version }),
    ...(options === undefined ? {} : { options }),
  };
  return {
    /** The rule turns `was` into `now`, with this trust; and files `beside` it too, by their paths. */
    rewrites: (
      was: string,
      now: string,
      trust: Trust = "certain",
      beside: Readonly<Record<string, readonly [was: string, now: string]>> = {},
    ): Trial => ({
      language,
      ...target,
      was: block(was),
      now: block(now),
      trust,
      beside: Object.fromEntries(
        Object.entries(beside).map(([path, [old, now]]) => [path, [block(old), block(now)] as const]),
      ),
    }),
    /** The rule reports this code, with advice that says this. */
    reports: (was: string, says: string, trust: Trust = "certain"): Trial => ({
      language,
      ...target,
      was: block(was),
      now: block(was),
      says,
      trust,
    }),
    /** The rule does not speak of this code at all. */
    ignores: (was: string): Trial => ({ language, ...target, was: block(was), now: block(was) }),
    /** The rule finds the place and holds the change back, for a reason that says this. */
    holds: (was: string, because: string): Trial => ({
      language,
      ...target,
      was: block(was),
      now: block(was),
      because,
    }),
  };
}
