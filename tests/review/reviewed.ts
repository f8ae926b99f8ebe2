import type { Decision } from "uvran/core";
import { Workspace, type Review } from "uvran/workspace";
import { Sandbox } from "../cli/run.js";

/** Three changes: two that are alike, and one of another rule. */
export const HIVES = `export function first(hive) {
  if (hive && hive.queen) mark(hive);
}
export function second(hive) {
  if (hive && hive.queen) mark(hive);
}
export function third(queen) {
  return queen !== null && queen !== undefined ? queen : "none";
}
`;
/** The rule of the third. */
export const FALLBACK = "javascript/value-or-fallback";
export const DECISIONS = ".uvran/decisions.jsonl";

/** A project with a plan. */
export async function project(
  files: Record<string, string | Uint8Array> = { "src/hives.js": HIVES },
): Promise<Sandbox> {
  const sandbox = new Sandbox(files);
  await propose(sandbox);
  return sandbox;
}

export async function propose(sandbox: Sandbox): Promise<void> {
  await (await Workspace.open(sandbox.root)).propose();
}

export async function reviewOf(sandbox: Sandbox): Promise<Review> {
  return (await Workspace.open(sandbox.root)).review();
}

export async function idsOf(sandbox: Sandbox): Promise<[string, string, string]> {
  return (await reviewOf(sandbox)).plan.changes.map(({ id }) => id) as [string, string, string];
}

/** Says something of the changes that an id or a rule names; of all without any. */
export async function say(sandbox: Sandbox, decision: Decision["decision"], which?: string): Promise<void> {
  const review = await reviewOf(sandbox);
  const meant = review.plan.changes.filter(
    ({ id, rules }) => which === undefined || id === which || rules.includes(which),
  );
  await review.decide(meant.map(({ id }) => ({ id, decision })));
}

/** What stands for each change of the plan: what was said, or why it does not fit. */
export async function decisionsOf(sandbox: Sandbox): Promise<(string | undefined)[]> {
  const review = await reviewOf(sandbox);
  const standings = review.standings();
  return review.plan.changes.map(({ id }) => standings.of(id).misfit ?? standings.of(id).decision);
}
