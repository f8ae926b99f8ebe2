import { clash, type Edit } from "../rewrite/index.js";
import { withText } from "./edited.js";
import { fits, reasonLeft, type Left, type Selection, type Wish } from "./filter.js";
import type { Plan, PlanChange } from "./plan.js";
import type { TextOf } from "./change-code.js";
import type { Standings } from "./standing.js";

/**
 * What to write of a plan. Changes that were edited by hand come with their own text; one whose text reaches into
 * another change that is written too is left.
 */
export function select(plan: Plan, standings: Standings, wish: Wish, textOf: TextOf): Selection {
  const chosen: PlanChange[] = [];
  const byHand: PlanChange[] = [];
  const left: Left[] = [];
  for (const change of plan.changes) {
    if (!fits(change, wish.filter ?? {})) continue;
    const standing = standings.of(change.id);
    const why = reasonLeft(change, standing, wish);
    if (why !== undefined) left.push({ change, why });
    else {
      const text = standing.edited === undefined ? undefined : textOf(change.path);
      if (text === undefined) chosen.push(change);
      else byHand.push(withText(text, change, standing.edited!));
    }
  }
  for (const change of byHand) {
    const other = chosen.find((one) => one !== change && overlap(one, change));
    if (other)
      left.push({
        change,
        why: `its text by hand reaches into another change (${other.rules.join(" + ")}, line ${other.line})`,
      });
    else chosen.push(change);
  }
  const order = new Map(plan.changes.map(({ id }, i) => [id, i]));
  const sorted = (list: PlanChange[]): PlanChange[] =>
    list.sort((a, b) => order.get(a.id)! - order.get(b.id)!);
  return { chosen: sorted(chosen), left };
}

function overlap(a: PlanChange, b: PlanChange): boolean {
  return partsOf(a).some(([path, edits]) =>
    partsOf(b).some(([other, others]) => path === other && clash(edits, others)),
  );
}

function partsOf({ path, edits, elsewhere }: PlanChange): [string, Edit[]][] {
  return [[path, edits], ...elsewhere.map((part): [string, Edit[]] => [part.path, part.edits])];
}
