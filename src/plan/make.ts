import { hashText, type FileResult } from "../engine/index.js";
import type { Plan } from "./plan.js";

/** One file and what the engine said of it. */
export interface Examined {
  readonly path: string;
  readonly text: string;
  readonly result: FileResult;
}

/** Puts the results of all files into a plan. The order of `examined` makes no difference. */
export function makePlan(examined: readonly Examined[]): Plan {
  const files: Record<string, string> = {};
  const ordered = [...examined].sort((a, b) => (a.path < b.path ? -1 : a.path > b.path ? 1 : 0));
  for (const { path, text, result } of ordered) {
    if (result.changes.length > 0) files[path] = hashText(text);
  }
  const plain = <T>(values: readonly T[]): T[] => values.map((value) => structuredClone(value));
  return {
    uvranPlan: 1,
    files,
    changes: ordered.flatMap(({ result }) => plain(result.changes)) as Plan["changes"],
    heldBack: ordered.flatMap(({ result }) => plain(result.heldBack)) as Plan["heldBack"],
  };
}
