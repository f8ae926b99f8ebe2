import { readFileSync } from "node:fs";
import { hashText } from "../engine/index.js";
import { decode, encodingOf, insideRoot, Journal, rewrittenFiles, type Project } from "../node/index.js";
import type { Review } from "./review.js";
import type { Plan, PlanChange } from "../plan/index.js";
import { Candidates } from "../prove/candidates.js";
import type { Replacements } from "../prove/index.js";
import { plural } from "../report/index.js";

/** Old and new code, as texts that take the place of a project's files. */
export interface Sides {
  /** What is compared, for a person. */
  readonly what: string;
  readonly before: Replacements;
  readonly after: Replacements;
  /** The changes that make new code of old, before an apply. */
  readonly candidates?: Candidates;
  /** The plan that they are from, with what is decided about it. */
  readonly review?: Review;
}

/** After an apply whose files are untouched: the journal's texts against the files. */
export function appliedSides(root: string): Sides | undefined {
  const journal = new Journal(root);
  const entry = journal.last();
  const isThere = entry?.files.every(({ path, after }) => hashOf(root, path) === after);
  if (!entry || !isThere) return undefined;
  const before = new Map(entry.files.map(({ path, stored }) => [path, journal.content(entry, stored)]));
  return {
    what: `the files as they were before the last apply with what it wrote (${plural(before.size, "file")})`,
    before,
    after: new Map(),
  };
}

/** Are the files still what the plan was made for, and is there anything in it? */
export function isFresh(root: string, plan: Plan): boolean {
  const paths = Object.keys(plan.files);
  return paths.length > 0 && paths.every((path) => hashOf(root, path) === plan.files[path]);
}

function hashOf(root: string, path: string): string | undefined {
  try {
    return hashText(decode(readFileSync(insideRoot(root, path))));
  } catch {
    return undefined;
  }
}

/** The files as they are against these changes of a plan. */
export async function planSides(
  { root, leaveOut }: Pick<Project, "root" | "leaveOut">,
  plan: Plan,
  changes: readonly PlanChange[],
): Promise<Sides> {
  const files = await rewrittenFiles(root, plan, changes, leaveOut);
  const olds = new Map(files.map(({ path, before }) => [path, before]));
  const encodings = new Map(files.map(({ path, file }) => [path, encodingOf(readFileSync(file)) ?? "utf-8"]));
  return {
    what: `the files as they are with ${plural(changes.length, "change")} of the plan`,
    before: new Map(),
    candidates: new Candidates(
      changes,
      (path) => olds.get(path),
      (path) => encodings.get(path) ?? "utf-8",
    ),
    after: new Map(files.map(({ path, bytes }) => [path, bytes])),
  };
}
