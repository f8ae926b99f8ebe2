import { assembled } from "./make.js";
import { PlanError, type Plan } from "./plan.js";
import { shardIn } from "./shard.js";

/** A plan, and what it is called where something is wrong with it. */
export interface NamedPlan {
  readonly name: string;
  readonly plan: Plan;
}

type Asked = NonNullable<Plan["asked"]>;

/**
 * The plans of several machines as one. Shards are joined when all are there, and give the plan that one machine would have made;
 * other plans, when they were made for other paths or with other rules, but not both. Throws a PlanError for plans that do not
 * belong together, and for one that is missing.
 */
export function joined(plans: readonly NamedPlan[]): Plan {
  const sharded = plans.filter(({ plan }) => plan.asked?.shard !== undefined);
  const [whole] = plans.filter(({ plan }) => plan.asked?.shard === undefined);
  if (sharded.length > 0 && whole)
    throw new PlanError(`${whole.name} is no shard, and the others are. Join shards with shards.`);
  if (sharded.length > 0) checkShards(sharded);
  const asked = askedTogether(plans, sharded.length > 0);
  return assembled(
    {
      files: filesOf(plans),
      changes: together(plans, "changes"),
      heldBack: together(plans, "heldBack"),
      advice: together(plans, "advice"),
    },
    asked,
  );
}

function checkShards(plans: readonly NamedPlan[]): void {
  const byNumber = new Map<number, string>();
  let parts: number | undefined;
  for (const { name, plan } of plans) {
    const { number, of } = shardIn(plan.asked!.shard!)!;
    if (parts !== undefined && of !== parts)
      throw new PlanError(`${name} is one of ${of} shards, and ${plans[0]!.name} one of ${parts}.`);
    parts = of;
    const other = byNumber.get(number);
    if (other !== undefined) throw new PlanError(`${name} and ${other} are both shard ${number}/${of}.`);
    byNumber.set(number, name);
  }
  const missing = Array.from({ length: parts! }, (_, i) => i + 1).filter((number) => !byNumber.has(number));
  if (missing.length > 0)
    throw new PlanError(
      `Not all shards are there: ${missing.map((number) => `${number}/${parts}`).join(", ")} missing. Name their plans too.`,
    );
}

/** What the plan was asked for that others make together. */
function askedTogether(plans: readonly NamedPlan[], isSharded: boolean): Plan["asked"] {
  const all = plans.map(({ name, plan }) => ({ name, asked: plan.asked ?? {} }));
  const differing = (["paths", "rules", "to", "since"] as const).filter(
    (key) => new Set(all.map(({ asked }) => JSON.stringify(asked[key]))).size > 1,
  );
  const [first, ...more] = differing;
  if (first !== undefined && (isSharded || more.length > 0 || first === "to" || first === "since"))
    throw new PlanError(
      `The plans were not asked for the same: ${differing.join(" and ")} differ in ${all.map(({ name }) => name).join(", ")}.`,
    );
  const asked: Asked = { ...all[0]!.asked };
  delete asked.shard;
  if (first === "paths" || first === "rules") {
    const lists = all.map((one) => one.asked[first]);
    if (lists.some((list) => list === undefined)) delete asked[first];
    else asked[first] = [...new Set(lists.flatMap((list) => list!))];
  }
  return Object.keys(asked).length > 0 ? asked : undefined;
}

function filesOf(plans: readonly NamedPlan[]): Map<string, string> {
  const files = new Map<string, string>();
  const from = new Map<string, string>();
  for (const { name, plan } of plans)
    for (const [path, hash] of Object.entries(plan.files)) {
      const known = files.get(path);
      if (known !== undefined && known !== hash)
        throw new PlanError(
          `${name} and ${from.get(path)!} were made for different states of ${path}. Make both for the same commit.`,
        );
      files.set(path, hash);
      from.set(path, name);
    }
  return files;
}

/** The entries of all plans, those that are in several of them once. */
function together<K extends "changes" | "heldBack" | "advice">(plans: readonly NamedPlan[], key: K): Plan[K] {
  const known = new Map<string, { readonly name: string; readonly text: string }>();
  const result: Plan[K][number][] = [];
  for (const { name, plan } of plans)
    for (const entry of plan[key]) {
      const text = JSON.stringify(entry);
      const other = known.get(entry.id);
      if (other && other.text !== text && other.name !== name)
        throw new PlanError(
          `${name} and ${other.name} say different things of ${entry.path}:${entry.line} (${entry.id}). Make both with the same Uvran, config and versions.`,
        );
      if (!other || other.name === name) result.push(entry);
      known.set(entry.id, { name, text });
    }
  return result as Plan[K];
}
