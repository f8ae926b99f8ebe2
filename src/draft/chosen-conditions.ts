import type { Match, RuleSpec } from "../rules/index.js";
import type { Parts } from "./build.js";
import { conditionsFor, type Proposed } from "./conditions.js";
import type { Generalised } from "./generalise.js";
import type { Instance } from "./instances.js";
import { matchesOf, type Source } from "./probe.js";
import { endOf, startOf } from "./run.js";

/** A condition that is not asked, and the edit that speaks against it. */
export interface Waived {
  readonly source: string;
  readonly path: string;
  readonly line: number;
}

/** Does a place overlap with an edit? */
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
export async function chosenConditions({
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
  const holds = pool.filter(({ condition }) =>
    edited.every((match) => ["yes", "unknown"].includes(answer(condition, match))),
  );
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

/** What a condition answers; one that throws cannot be asked here, which is no answer. */
function answer({ ask }: Proposed["condition"], match: Match): "yes" | "no" | "unknown" | "cannot be asked" {
  try {
    return ask(match).is;
  } catch {
    return "cannot be asked";
  }
}
