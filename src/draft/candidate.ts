import { compile, matchOneAt } from "../pattern/index.js";
import { rule, RuleError, type Match, type Rule, type RuleSpec } from "../rules/index.js";
import type { ContextName, Import } from "../syntax/index.js";
import { Parts } from "./build.js";
import { specFor, type Read } from "./by-reading.js";
import { conditionsFor, type Proposed } from "./conditions.js";
import { excerptOf } from "./excerpt.js";
import { generalise, type Generalised, type Width } from "./generalise.js";
import type { Group } from "./groups.js";
import type { Instance } from "./instances.js";
import type { Keys } from "./keys.js";
import { matchesOf, placesOf, verdictsOn, type DraftPlace, type Source } from "./probe.js";
import { endOf, startOf } from "./run.js";

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

/** A condition that is not asked, and the edit that speaks against it. */
export interface Waived {
  readonly source: string;
  readonly path: string;
  readonly line: number;
}

/** Names and words of a rule that its drafter cannot know. */
export interface About {
  readonly id: string;
  readonly title: string;
  readonly why: string;
}

/** Combinations of kinds of holes that are tried before a draft is given up. */
const MOST_KINDS = 300;
const CONTEXTS: readonly (ContextName | undefined)[] = [
  undefined,
  "expression",
  "statement",
  "member",
  "type",
  "file",
];

/** The rule of one width for a group; undefined where none rewrites all its edits to what their author made of them. */
export async function candidateFor(
  group: Pick<Group, "instances">,
  width: Width,
  about: (drafted: Generalised) => About,
  keys: Keys,
): Promise<Candidate | undefined> {
  const { instances } = group;
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
  const make = (conditions: readonly Proposed[]): Rule =>
    rule({ ...spec, given: conditions.map(({ condition }) => condition), trials: [] });
  const some = spread(instances, MOST_TRIED).map(excerptOf);
  const isRight = async (made: Rule): Promise<boolean> =>
    (await verdictsOn(made, some, keys)).every((verdict) => verdict.is === "same");
  try {
    const { conditions, waived } = await chosenConditions({ ...draft, instances: some, sources: [] });
    const made = make(conditions);
    if (!(await isRight(made))) return undefined;
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
  const { conditions, paths } = await chosenConditions({
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
  return { ...candidate, spec: { ...spec, given }, conditions, others };
}

export function isEdited(
  { path, start, end }: { readonly path: string; readonly start: number; readonly end: number },
  instances: readonly Instance[],
): boolean {
  return instances.some(
    ({ file, before }) =>
      file.path === path && before.nodes.length > 0 && startOf(before) < end && start < endOf(before),
  );
}

/** Conditions that a rewrite of this kind needs, and those that leave out places that fit and that nobody edited. */
async function chosenConditions({
  spec,
  drafted,
  parts,
  instances,
  sources,
}: {
  readonly spec: Omit<RuleSpec, "trials">;
  readonly drafted: Generalised;
  readonly parts: Parts;
  readonly instances: readonly Instance[];
  readonly sources: readonly Source[];
}): Promise<{
  readonly conditions: Proposed[];
  readonly waived: Waived[];
  readonly paths: ReadonlySet<string>;
}> {
  const pool = conditionsFor(drafted, parts, instances);
  const files = new Map(instances.map(({ file }) => [file.path, file.before.text]));
  const own = [...files].map(([path, text]) => ({
    path,
    text,
    language: instances[0]!.before.tree.language,
  }));
  const beside = sources.filter(({ path }) => !files.has(path));
  const all = await matchesOf({ ...spec, trials: [] }, [...own, ...beside]);
  const placed = all.map(({ path, match }) => ({
    path,
    match,
    edited: isEdited({ path, start: match.found.start, end: match.found.end }, instances),
  }));
  const refused = (one: Proposed, match: Match): boolean => answer(one.condition, match) === "no";
  const edited = placed.filter((one) => one.edited).map(({ match }) => match);
  // In other files nobody may have come to the place yet.
  let left = placed.filter((one) => !one.edited && files.has(one.path)).map(({ match }) => match);
  const holds = pool.filter(({ condition }) => edited.every((match) => answer(condition, match) !== "no"));
  const waived = pool
    .filter((one) => one.isNeeded && one.isWeighty && !holds.includes(one))
    .flatMap((one): Waived[] => {
      const against = placed.find(({ match, edited }) => edited && refused(one, match));
      return against ? [{ source: one.source, path: against.path, line: against.match.node.line }] : [];
    });
  const chosen = holds.filter(({ isNeeded }) => isNeeded);
  left = left.filter((match) => !chosen.some((one) => refused(one, match)));
  while (left.length > 0) {
    const [best] = holds
      .filter((one) => !chosen.includes(one))
      .map((one) => ({ one, refuses: left.filter((match) => refused(one, match)).length }))
      .sort((a, b) => b.refuses - a.refuses);
    if (!best || best.refuses === 0) break;
    chosen.push(best.one);
    left = left.filter((match) => !refused(best.one, match));
  }
  return { conditions: chosen, waived, paths: new Set(all.map(({ path }) => path)) };
}

/** What a condition answers; one that cannot be asked here answers no. */
function answer({ ask }: Proposed["condition"], match: Match): "yes" | "no" | "unknown" {
  try {
    return ask(match).is;
  } catch {
    return "no";
  }
}

/**
 * Finds out of what kind the holes are, and where the code stands: for each surroundings the first combination with which the
 * pattern fits the old code of every instance.
 */
export function* settled(
  drafted: Generalised,
  instances: readonly Instance[],
): Generator<{ readonly parts: Parts; readonly context: ContextName | undefined }> {
  const { opened, was } = drafted;
  for (const context of CONTEXTS) {
    let tried = 0;
    for (const kinds of combinations(opened.map((one) => one.kinds))) {
      if (tried++ > MOST_KINDS) break;
      opened.forEach(({ hole }, i) => (hole.kind = kinds[i]!));
      const parts = new Parts();
      const isFit =
        instances.every((instance) => fits(parts, was, context, instance)) &&
        reads(parts, drafted, context, instances[0]!);
      if (!isFit) continue;
      yield { parts, context };
      break;
    }
  }
}

function reads(
  parts: Parts,
  { becomes }: Generalised,
  context: ContextName | undefined,
  { after }: Instance,
): boolean {
  if (after.nodes.length === 0) return true;
  try {
    compile(parts.snippet(becomes, context), after.tree.language.id);
    return true;
  } catch {
    // A hole by itself is no pattern, but may well be what is left.
    return becomes.texts.every((text) => text.trim() === "");
  }
}

function fits(
  parts: Parts,
  was: Generalised["was"],
  context: ContextName | undefined,
  { before }: Instance,
): boolean {
  const { tree, nodes } = before;
  try {
    const compiled = compile(parts.snippet(was, context), tree.language.id);
    const [start, end] = [startOf(before), endOf(before)];
    for (let n = nodes[0]!; n < tree.after[nodes[0]!]! && tree.starts[n] === start; n++) {
      const match = matchOneAt(compiled, tree, n);
      if (match && match.start === start && Math.abs(match.end - end) <= 1) return true;
    }
    return false;
  } catch {
    return false;
  }
}

/** All choices of one of each list, the first of all first; those that differ in little come early. */
function* combinations<T>(lists: readonly (readonly T[])[]): Generator<T[]> {
  const places = lists.map(() => 0);
  const most = lists.reduce((sum, list) => sum + list.length - 1, 0);
  function* withSum(at: number, sum: number): Generator<T[]> {
    if (at === lists.length) {
      if (sum === 0) yield places.map((place, i) => lists[i]![place]!);
      return;
    }
    for (let place = 0; place < lists[at]!.length && place <= sum; place++) {
      places[at] = place;
      yield* withSum(at + 1, sum - place);
    }
  }
  for (let sum = 0; sum <= most; sum++) yield* withSum(0, sum);
}
