import { hashText, type Change, type FileResult, type HeldBack } from "../engine/index.js";
import { clash, type Edit } from "../rewrite/index.js";
import { pathsOf, type Plan, type PlanChange } from "./plan.js";

/** One file and what the engine said of it. */
export interface Examined {
  readonly path: string;
  /** Of its text; see `hashText`. */
  readonly hash: string;
  readonly result: FileResult;
}

/**
 * Puts the results of all files into a plan. The order of `examined` makes no difference. `textOf` gives the texts of
 * files that only changes of other files touch. Where two changes want the same text of a file, the one that does more
 * is kept, else the one whose own file comes first, and the other is held back whole.
 */
export function makePlan(
  examined: readonly Examined[],
  textOf: (path: string) => string = missing,
  asked?: Plan["asked"],
): Plan {
  const ordered = [...examined].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
  const hashes = new Map(ordered.map(({ path, hash }) => [path, hash]));
  const { kept, refused } = settled(ordered.flatMap(({ result }) => result.changes));
  const files: Record<string, string> = {};
  for (const path of [...new Set(kept.flatMap((change) => pathsOf(change as PlanChange)))].sort()) {
    files[path] = hashes.get(path) ?? hashText(textOf(path));
  }
  const heldBack = ordered.flatMap(({ path, result }) => [
    ...result.heldBack,
    ...refused.filter((entry) => entry.path === path),
  ]);
  const plain = <T>(values: readonly T[]): T[] => values.map((value) => structuredClone(value));
  return {
    uvranPlan: 3,
    files,
    ...(asked ? { asked } : {}),
    changes: plain(kept) as Plan["changes"],
    heldBack: plain(heldBack) as Plan["heldBack"],
    advice: plain(ordered.flatMap(({ result }) => result.advice ?? [])) as Plan["advice"],
  };
}

function missing(path: string): string {
  throw new RangeError(`the text of ${path} is not known`);
}

/** Changes of one file never clash; those that reach into other files may. */
function settled(changes: readonly Change[]): { kept: Change[]; refused: HeldBack[] } {
  if (changes.every(({ elsewhere }) => elsewhere.length === 0)) return { kept: [...changes], refused: [] };
  const taken = new Map<string, Edit[]>();
  const refused: HeldBack[] = [];
  const size = ({ edits, elsewhere }: Change): number =>
    elsewhere.reduce((sum, file) => sum + file.edits.length, edits.length);
  const first = [...changes.keys()].sort((a, b) => size(changes[b]!) - size(changes[a]!) || a - b);
  const kept = new Set<Change>();
  for (const change of first.map((i) => changes[i]!)) {
    const parts = [{ path: change.path, edits: change.edits }, ...change.elsewhere];
    const other = parts.find(({ path, edits }) => clash(edits, taken.get(path) ?? []));
    if (other) {
      const reason = `another change wants the same text in ${other.path}; run again once that is settled`;
      const { id, rules, path, line, range } = change;
      refused.push({ id, rule: rules.join(" + "), path, line, range, code: "edit.clash", reason });
      continue;
    }
    for (const { path, edits } of parts) taken.set(path, [...(taken.get(path) ?? []), ...edits]);
    kept.add(change);
  }
  return { kept: changes.filter((change) => kept.has(change)), refused };
}
