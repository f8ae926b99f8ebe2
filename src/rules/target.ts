import { coerce, compare } from "semver";
import { no, yes, type Answer } from "../analysis/index.js";
import type { Language } from "../syntax/index.js";
import type { Match } from "./match.js";

/** A version of a language that code must run on, and who says so. */
export interface Target {
  /** As the language counts: `8`, `7.4`, `2020`. */
  readonly version: string;
  /** What says so, as the end of a sentence: "by composer.json". */
  readonly says: string;
}

/** How long a line of a file may be, in characters, and who says so. */
export interface LineLimit {
  readonly most: number;
  /** As the end of a sentence: "by .editorconfig". */
  readonly says: string;
}

/** Tells the version that a file must run on; the engine asks it for all that new code needs. */
export interface TargetSource {
  targetOf(file: {
    readonly path: string;
    readonly text: string;
    readonly language: Language;
  }): Target | undefined;
  /** The longest line that the project's own settings allow in a file; undefined where nothing says it. */
  lineLimitOf?(path: string): LineLimit | undefined;
}

/** C++ counts its standards by the last digits of their years, and 98 came before 11. */
const inOrder = (version: string): string => (/^(?:c\+\+|gnu\+\+)?[89]\d$/.test(version) ? "0" : version);

/** Is a version at least another one? `8` counts as `8.0.0`. */
export function isAtLeast(version: string, wanted: string): boolean {
  const [have, need] = [coerce(inOrder(version)), coerce(inOrder(wanted))];
  return have !== null && need !== null && compare(have, need) >= 0;
}

/** What new code needs of a version, which one that is for, and whether a project has it. */
export interface VersionVerdict {
  /** Yes or no: where nothing says the version, what the assumed one lacks is not written. */
  readonly answer: Answer;
  /** Known to be too old: the rule has nothing to say here. */
  readonly isTooOld: boolean;
  /** The language and version that is needed: "Java 9". */
  readonly needs: string;
}

/** May new code have this where a match stands? Undefined for what every version has. */
export function versionVerdict(
  wanted: readonly { readonly since?: string | undefined; readonly what?: string }[],
  { around, tree }: Pick<Match, "around" | "tree">,
): VersionVerdict | undefined {
  let newest: { since: string; what?: string } | undefined;
  for (const { since, what } of wanted) {
    if (since === undefined || (newest && isAtLeast(newest.since, since))) continue;
    newest = { since, ...(what === undefined ? {} : { what }) };
  }
  if (!newest) return undefined;
  const { language, text } = tree;
  const needs = `${language.title} ${newest.since}`;
  const target = around.targets?.targetOf({ path: around.path, text, language });
  if (target) {
    const here = `${language.title} ${target.version} is asked for ${target.says}`;
    const isNew = isAtLeast(target.version, newest.since);
    return {
      answer: isNew ? yes("version.target", here) : no("version.target", here),
      isTooOld: !isNew,
      needs,
    };
  }
  const whatFor = newest.what === undefined ? "" : ` (${newest.what})`;
  const answer = isAtLeast(language.assumedVersion, newest.since)
    ? yes(
        "version.target",
        `${language.title} ${language.assumedVersion} is taken for granted, since nothing says otherwise`,
      )
    : no(
        "version.target",
        `the new code needs ${needs}${whatFor}, and nothing says which version the project is for`,
      );
  return { answer, isTooOld: false, needs };
}

/** May new code need this version where a match stands? For rules that can write an older form too. */
export function targetAllows(version: string, match: Match): boolean {
  return versionVerdict([{ since: version }], match)?.answer.is === "yes";
}
