import { rule, RuleError, type RuleSpec } from "../rules/index.js";
import type { ContextName, Import } from "../syntax/index.js";
import type { Parts } from "./build.js";
import { specFor, type Read } from "./by-reading.js";
import { chosenConditions, isEdited, type Waived } from "./chosen-conditions.js";
import type { Proposed } from "./conditions.js";
import { excerptOf } from "./excerpt.js";
import { generalise, type Generalised } from "./generalise.js";
import type { Group } from "./groups.js";
import type { Instance } from "./instances.js";
import type { Keys } from "./keys.js";
import { placesOf, doesTheSame, type DraftPlace, type Source } from "./probe.js";
import { settled } from "./settled.js";
import type { Width } from "./width.js";

/** A rule that says what all edits of a group have in common. */
export interface Candidate {
  readonly width: Width | "meaning";
  readonly drafted: Generalised;
  readonly spec: Omit<RuleSpec, "trials">;
  readonly conditions: readonly Proposed[];
  /** Conditions that such a rule should ask, and that do not hold where its author did it all the same. */
  readonly waived: readonly Waived[];
  readonly context: ContextName | undefined;
  readonly parts: Parts;
  /** How the old code is written where a reading finds it; what it becomes too, where that is worked out. */
  readonly old?: {
    readonly source: string;
    readonly imports: readonly string[];
    readonly becomes?: string;
    readonly becomesImports?: readonly string[];
  };
  /** What must be imported and is named nowhere in the new code. */
  readonly needed: readonly Import[];
  /** The places that were edited by hand and that it rewrites to the same code. */
  readonly edited: readonly Instance[];
}

/** Names and words of a rule that its drafter cannot know. */
export interface About {
  readonly id: string;
  readonly title: string;
  readonly why: string;
}

/** The rule of one width for a group; undefined where none rewrites all its edits to what their author made of them. */
export async function candidateFor(
  { instances }: Pick<Group, "instances">,
  width: Width,
  about: (drafted: Generalised) => About,
  keys: Keys,
): Promise<Candidate | undefined> {
  const drafted = generalise(spread(instances, MOST_TRIED), width, keys);
  if (!drafted || drafted.isBare) return undefined;
  const needed = instances[0]!.came.filter(
    ({ module, name, local }) =>
      local === undefined && !drafted.needs.some((one) => one.module === module && one.name === name),
  );
  for (const { parts, context } of settled(drafted, spread(instances, MOST_TRIED))) {
    const needs = needed.map((wanted) => parts.need(wanted));
    const spec: Omit<RuleSpec, "trials"> = {
      ...about(drafted),
      kind: "idiom",
      was: parts.snippet(drafted.was, context),
      becomes: parts.snippet(drafted.becomes, context),
      ...(needs.length > 0 ? { needs } : {}),
    };
    const found = await tried({ width, drafted, spec, parts, context, needed }, instances, keys);
    if (found) return found;
  }
  return undefined;
}

/** The rule that finds the old code by what it says; undefined where it does not do what the author did. */
export async function meantCandidate(
  read: Read,
  instances: readonly Instance[],
  about: (drafted: Generalised) => About,
  keys: Keys,
): Promise<Candidate | undefined> {
  const { drafted } = read;
  const made = specFor(read, about(drafted));
  return tried({ width: "meaning", drafted, ...made, context: undefined, needed: [] }, instances, keys);
}

/** So many edits of a group are tried, which stand for the others. */
const MOST_TRIED = 40;

/** Asks the engine whether a rule does to each edited place what its author did. */
async function tried(
  draft: Omit<Candidate, "conditions" | "waived" | "edited">,
  instances: readonly Instance[],
  keys: Keys,
): Promise<Candidate | undefined> {
  const { spec } = draft;
  const some = spread(instances, MOST_TRIED).map(excerptOf);
  try {
    const { conditions, waived } = await chosenConditions({ ...draft, instances: some, sources: [] });
    const made = rule({ ...spec, given: conditions.map(({ condition }) => condition), trials: [] });
    if (!(await doesTheSame(made, some, keys))) return undefined;
    return { ...draft, spec: { ...spec, given: made.given ?? [] }, conditions, waived, edited: instances };
  } catch (error) {
    if (error instanceof RuleError) return undefined;
    throw error;
  }
}

/** A list, or as many of it as are wanted, from all over it. */
export function spread<T>(list: readonly T[], most: number): readonly T[] {
  if (list.length <= most) return list;
  return Array.from({ length: most }, (_, i) => list[Math.floor((i * list.length) / most)]!);
}

/** A candidate, and the places beside the edits that it fits in some code. */
export interface Weighed extends Candidate {
  readonly others: readonly DraftPlace[];
}

/**
 * Tries a candidate on code as it was: asks for conditions that leave out places which fit and were not edited, where there are any,
 * and lists the places that are left.
 */
export async function weighed(candidate: Candidate, sources: readonly Source[]): Promise<Weighed> {
  const { spec, edited } = candidate;
  const { conditions, waived, paths } = await chosenConditions({
    ...candidate,
    instances: spread(edited, MOST_TRIED),
    sources,
  });
  const given = conditions.map(({ condition }) => condition);
  const made = rule({ ...spec, given, trials: [] });
  const others = (
    await placesOf(
      made,
      sources.filter(({ path }) => paths.has(path)),
    )
  ).filter((place) => !isEdited(place, edited));
  return { ...candidate, spec: { ...spec, given }, conditions, waived, others };
}
