import { calledFromLibrary, condition, rule, shortened, yes } from "../../core.js";
import type { Answer, Handle, Hole, Match, Rule, Snippet, Trial } from "../../core.js";
import { calledIn, handleOf, releasesOf } from "./handles.js";

/** What a language's rule for resources without a name needs to know. */
export interface UnnamedSpec {
  readonly id: string;
  /** A method that is called on what was acquired, and what else uses it at once. */
  readonly was: readonly Snippet[];
  readonly made: Hole;
  /** The method, where one is called on it. */
  readonly method: Hole;
  /** Resources that nothing gives back in time by itself. */
  readonly rows: readonly Handle[];
  /** The form that releases it, for a sentence: "a `with` block". */
  readonly form: string;
  readonly trials: readonly Trial[];
}

/** A rule that reports what is acquired in the middle of an expression, so that nothing can release it. */
export function unnamedRule({ id, was, made, method, rows, form, trials }: UnnamedSpec): Rule {
  const releases = releasesOf(rows).flatMap((code) => /(\w+)\W*$/.exec(code)?.[1] ?? []);
  const acquired = (match: Match): Answer | undefined => handleOf(rows, match.the(made))?.answer;
  return rule({
    id,
    kind: "smell",
    title: "Release a resource that is opened inside an expression",
    why: "Nothing can close it, so it stays open until the garbage collector frees it.",
    was,
    mentions: rows.map((row) => calledIn(row).split(/[.:]+/).at(-1)!),
    where: [
      (match) => acquired(match) !== undefined && match.the(made).child("block") === undefined,
      (match) => (match.has(method) ? !releases.includes(match.textOf(method)) : isOnlyUsed(match)),
    ],
    given: [
      condition(
        "a resource is acquired here",
        (match) => acquired(match) ?? yes("resource.acquired", "it is acquired"),
        { unknownIs: "possible" },
      ),
    ],
    advice: (match) => `\`${shortened(match.textOf(made))}\` is never closed: use ${form}`,
    trials,
  });
}

/** Does a function of the library use what it is given, and neither keep nor release it? */
function isOnlyUsed({ node }: Match): boolean {
  const row = calledFromLibrary(node);
  return row !== undefined && row.keeps !== true && row.releases !== true;
}
