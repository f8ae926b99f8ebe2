import { hashText, type Advice, type Change, type FileResult, type HeldBack } from "../engine/index.js";
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
 * is kept, else the one whose own file comes first, and the other is held back whole; in a shard all are kept until it is joined
 * with the others.
 */
export function makePlan(
  examined: readonly Examined[],
  textOf: (path: string) => string = missing,
  asked?: Plan["asked"],
): Plan {
  const hashes = new Map(examined.map(({ path, hash }) => [path, hash]));
  const of = <T>(entries: (result: FileResult) => readonly T[]): T[] =>
    examined.flatMap(({ result }) => [...entries(result)]);
  const changes = of((result) => result.changes);
  const touched = changes.flatMap((change) => pathsOf(change as PlanChange));
  return assembled(
    {
      files: new Map(touched.map((path) => [path, hashes.get(path) ?? hashText(textOf(path))])),
      changes,
      heldBack: of((result) => result.heldBack),
      advice: of((result) => result.advice ?? []),
    },
    asked,
  );
}

/** What a plan is put together from. Entries of one file are in their order. */
export interface Parts {
  /** The hash of each file that a change touches. */
  readonly files: ReadonlyMap<string, string>;
  readonly changes: readonly (Change | PlanChange)[];
  readonly heldBack: readonly (HeldBack | Plan["heldBack"][number])[];
  readonly advice: readonly (Advice | Plan["advice"][number])[];
}

/** A plan of its parts, which may come in any order of their files. */
export function assembled({ files, changes, heldBack, advice }: Parts, asked: Plan["asked"]): Plan {
  const inOrder = <T extends { readonly path: string }>(entries: readonly T[]): T[] =>
    [...entries].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
  const isShard = asked?.shard !== undefined;
  const { kept, refused } = isShard ? { kept: inOrder(changes), refused: [] } : settled(inOrder(changes));
  const touched = [...new Set(kept.flatMap((change) => pathsOf(change as PlanChange)))].sort();
  const plain = <T>(values: readonly T[]): T[] => values.map((value) => structuredClone(value));
  return {
    uvranPlan: 3,
    files: Object.fromEntries(touched.map((path) => [path, files.get(path)!])),
    ...(asked ? { asked } : {}),
    changes: plain(kept) as Plan["changes"],
    heldBack: plain(inOrder([...heldBack, ...refused])) as Plan["heldBack"],
    advice: plain(inOrder(advice)) as Plan["advice"],
  };
}

function missing(path: string): string {
  throw new RangeError(`the text of ${path} is not known`);
}

/** Changes of one file never clash; those that reach into other files may. */
function settled<T extends Change | PlanChange>(changes: readonly T[]): { kept: T[]; refused: HeldBack[] } {
  if (changes.every(({ elsewhere }) => elsewhere.length === 0)) return { kept: [...changes], refused: [] };
  const taken = new Map<string, Edit[]>();
  const refused: HeldBack[] = [];
  const size = ({ edits, elsewhere }: T): number =>
    elsewhere.reduce((sum, file) => sum + file.edits.length, edits.length);
  const first = [...changes.keys()].sort((a, b) => size(changes[b]!) - size(changes[a]!) || a - b);
  const kept = new Set<T>();
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
