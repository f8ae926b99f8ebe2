import { doubtsOf } from "./filter.js";
import type { PlanChange } from "./plan.js";
import { standsAs, type Standings } from "./standing.js";

/** Those of some changes that nothing is decided about and that have the same rules, trust, evidence and cautions as one. */
export function similar(
  changes: readonly PlanChange[],
  standings: Standings,
  change: PlanChange,
): PlanChange[] {
  const key = likeness(change);
  return changes.filter(
    (other) =>
      other.id !== change.id && standsAs(standings.of(other.id)) === "open" && likeness(other) === key,
  );
}

const known = new WeakMap<PlanChange, string>();

function likeness(change: PlanChange): string {
  const before = known.get(change);
  if (before !== undefined) return before;
  const said = change.evidence.map(({ code, answer }) => `${code} ${answer}`);
  const key = JSON.stringify([
    change.rules,
    change.trust,
    [...new Set(said)].sort(),
    [...doubtsOf(change)].sort(),
  ]);
  known.set(change, key);
  return key;
}
