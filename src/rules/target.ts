import { coerce, compare } from "semver";
import { no, unknown, yes, type Answer } from "../analysis/index.js";
import { syntaxIn, type Language, type Novelty } from "../syntax/index.js";
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
  /** Where nothing says a version the assumed one is meant, as in the examples of a rule. */
  readonly meansAssumed?: boolean;
  /** The longest line that the project's own settings allow in a file; undefined where nothing says it. */
  lineLimitOf?(path: string): LineLimit | undefined;
}

/** For code that stands alone, in no project: the assumed versions are the ones that are meant. */
export const assumedVersions: TargetSource = { meansAssumed: true, targetOf: () => undefined };

/** C++ counts its standards by the last digits of their years, and 98 came before 11. */
const inOrder = (version: string): string => (/^(?:c\+\+|gnu\+\+)?[89]\d$/.test(version) ? "0" : version);

/** Is a version at least another one? `8` counts as `8.0.0`. */
export function isAtLeast(version: string, wanted: string): boolean {
  const [have, need] = [coerce(inOrder(version)), coerce(inOrder(wanted))];
  return have !== null && need !== null && compare(have, need) >= 0;
}

/** What new code needs of a version, which one that is for, and whether a project has it. */
export interface VersionVerdict {
  /**
   * Where nothing says the version: yes for what newer syntax in the same file proves, unknown for what the assumed version
   * has, no for what it lacks.
   */
  readonly answer: Answer;
  /** Known to be too old: the rule has nothing to say here. */
  readonly isTooOld: boolean;
  /** The language and version that is needed: "Java 9". */
  readonly needs: string;
}

/** Something that new code needs a version for; nothing where every version has it. */
type Wanted = { readonly since?: string | undefined } & Partial<Omit<Novelty, "since">>;

/** What of this is needed that came in last. */
function newestOf(wanted: readonly Wanted[]): (Wanted & { readonly since: string }) | undefined {
  let newest: (Wanted & { readonly since: string }) | undefined;
  for (const one of wanted) {
    const { since } = one;
    if (since !== undefined && !(newest && isAtLeast(newest.since, since))) newest = { ...one, since };
  }
  return newest;
}

/** May new code have this where a match stands? Undefined for what every version has. */
export function versionVerdict(
  wanted: readonly Wanted[],
  { around, tree }: Pick<Match, "around" | "tree">,
): VersionVerdict | undefined {
  const newest = newestOf(wanted);
  if (!newest) return undefined;
  const { language, text } = tree;
  const { title, assumedVersion, versions } = language;
  const needs = `${title} ${newest.since}`;
  const target = around.targets?.targetOf({ path: around.path, text, language });
  if (target) {
    const here = `${title} ${target.version} is asked for ${target.says}`;
    const isNew = isAtLeast(target.version, newest.since);
    return {
      answer: isNew ? yes("version.target", here) : no("version.target", here),
      isTooOld: !isNew,
      needs,
    };
  }
  // Without its own newest syntax, the file could not be read.
  const own = newestOf(syntaxIn(tree));
  const unproved = newestOf(
    wanted.filter(
      ({ since, isSyntax }) =>
        !(since && own && (isSyntax || versions.bringsLibrary) && isAtLeast(own.since, since)),
    ),
  );
  if (!unproved) {
    const says = `the file has ${own!.what}, so it is for ${title} ${own!.since} or later`;
    return { answer: yes("version.target", says), isTooOld: false, needs };
  }
  if (!isAtLeast(assumedVersion, unproved.since)) {
    const whatFor = unproved.what === undefined ? "" : ` (${unproved.what})`;
    const wants = `the new code needs ${title} ${unproved.since}${whatFor}`;
    const says = `${wants}, and nothing says which version the project is for`;
    return { answer: no("version.target", says), isTooOld: false, needs };
  }
  const says = `${title} ${assumedVersion} is assumed, since nothing says which version the project is for`;
  const answer = around.targets?.meansAssumed ? yes : unknown;
  return { answer: answer("version.target", says), isTooOld: false, needs };
}

/** May new code need this version where a match stands? For rules that can write an older form too. */
export function targetAllows(version: string, match: Match): boolean {
  return versionVerdict([{ since: version }], match)?.answer.is !== "no";
}
