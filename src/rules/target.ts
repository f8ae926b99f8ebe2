import { coerce, compare } from "semver";
import { no, unknown, yes, type Answer } from "../analysis/index.js";
import type { Language } from "../syntax/index.js";
import type { Match } from "./match.js";

/** A version of a language that code must run on, and who says so. */
export interface Target {
  /** As the language counts: `8`, `7.4`, `2020`. */
  readonly version: string;
  /** What says so, as the end of a sentence: "by composer.json". */
  readonly says: string;
}

/** Tells the version that a file must run on; the engine asks it for rules with a `target`. */
export interface TargetSource {
  targetOf(file: {
    readonly path: string;
    readonly text: string;
    readonly language: Language;
  }): Target | undefined;
}

/** Is a version at least another one? `8` counts as `8.0.0`. */
export function isAtLeast(version: string, wanted: string): boolean {
  const [have, need] = [coerce(version), coerce(wanted)];
  return have !== null && need !== null && compare(have, need) >= 0;
}

/** May new code need this version where a match stands? Undefined for a rule that needs none. */
export function targetAnswer(wanted: string | undefined, { around, tree }: Match): Answer | undefined {
  if (wanted === undefined) return undefined;
  const { language, text } = tree;
  const target = around.targets?.targetOf({ path: around.path, text, language });
  const called = `${language.title} ${wanted}`;
  if (!target) {
    return isAtLeast(language.assumedVersion, wanted)
      ? yes(`${called} is taken for granted, since nothing says otherwise`)
      : unknown(`the new code needs ${called}, and nothing says which version the project is for`);
  }
  const here = `${language.title} ${target.version} is asked for ${target.says}`;
  return isAtLeast(target.version, wanted) ? yes(here) : no(here);
}
