import { textAfter } from "../engine/index.js";
import { TRUSTS, type Trust } from "../rules/index.js";
import { PlanError, type PlanChange } from "./plan.js";

/** The changes that are at least this sure. */
export function atLeast(changes: readonly PlanChange[], trust: Trust): PlanChange[] {
  const limit = TRUSTS.indexOf(trust);
  return changes.filter((change) => TRUSTS.indexOf(change.trust) <= limit);
}

/** The changes file by file; one that touches several files is with each of them, with its edits there. */
export function byPath(changes: readonly PlanChange[]): Map<string, PlanChange[]> {
  const result = new Map<string, PlanChange[]>();
  const add = (path: string, change: PlanChange): void => {
    const list = result.get(path);
    if (list) list.push(change);
    else result.set(path, [change]);
  };
  for (const change of changes) {
    if (change.edits.length > 0 || change.elsewhere.length === 0) add(change.path, change);
    for (const { path, edits } of change.elsewhere)
      add(path, { ...change, path, edits, needs: [], elsewhere: [] });
  }
  return result;
}

/** A file's text with these changes made, imports and all. Throws a PlanError when they do not fit it. */
export async function plannedText(
  path: string,
  text: string,
  changes: readonly PlanChange[],
): Promise<string> {
  try {
    return await textAfter(path, text, changes);
  } catch (error) {
    throw new PlanError(
      `The plan's edits for "${path}" do not fit: ${(error as Error).message}. Nothing was done.`,
    );
  }
}

/** How many of each rule, file by file or all together. */
export function countBy<T>(items: readonly T[], key: (item: T) => string): Map<string, number> {
  const counts = new Map<string, number>();
  for (const item of items) counts.set(key(item), (counts.get(key(item)) ?? 0) + 1);
  return counts;
}
