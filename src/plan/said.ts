import { codeOf, type TextOf } from "./change-code.js";
import type { Decision } from "./decision.js";
import { hashOfLines, linesOfChange } from "./edited.js";
import type { Plan, PlanChange } from "./plan.js";
import type { Standings } from "./standing.js";

/** What somebody says of one change, held-back place or piece of advice. */
export interface Said {
  readonly id: string;
  /** Undefined takes back what was said before. */
  readonly decision?: Decision["decision"] | undefined;
  readonly note?: string | undefined;
  /** The lines of the change as they are to be, in place of the proposed ones. */
  readonly edited?: string | undefined;
  /** What the person saw as decided, where that matters: "none" for nothing. */
  readonly saw?: Decision["decision"] | "none" | undefined;
}

/** The decisions of a plan after somebody has said something, as the lines `added` say it; others about the same go. */
export function withSaid(
  now: readonly Decision[],
  { carried }: Pick<Standings, "carried">,
  said: readonly Said[],
  added: readonly Decision[],
): Decision[] {
  const ids = new Set(said.map(({ id }) => id));
  return [...now.filter((decision) => !ids.has(carried.get(decision) ?? decision.id)), ...added];
}

/**
 * The lines to store for what was said of a plan. What takes something back has none. `textOf` gives the texts that the
 * plan was made for. Throws a RangeError for an id that the plan does not have.
 */
export function linesFor(
  plan: Pick<Plan, "changes" | "heldBack" | "advice">,
  said: readonly Said[],
  textOf: TextOf,
): Decision[] {
  const changes = new Map(plan.changes.map((change) => [change.id, change]));
  const places = new Map([...plan.heldBack, ...plan.advice].map((place) => [place.id, place]));
  return said.flatMap((one): Decision[] => {
    const { id, decision, note } = one;
    if (decision === undefined) return [];
    const change = changes.get(id);
    if (change) return [decided(change, { ...one, decision }, textOf)];
    const place = places.get(id);
    if (!place) throw new RangeError(`the plan has no change and no place ${id}`);
    return [{ path: place.path, rules: [place.rule], id, decision, ...(note ? { note } : {}) }];
  });
}

/** What somebody says now of a change, as it is stored. */
function decided(
  change: PlanChange,
  { decision, note, edited }: Said & { readonly decision: Decision["decision"] },
  textOf: TextOf,
): Decision {
  const { path, rules, id, trust } = change;
  const code = codeOf(change, textOf);
  const cautions = [...new Set(change.cautions.map((caution) => caution.code))].sort();
  const text = textOf(path);
  const lines = edited === undefined || text === undefined ? undefined : linesOfChange(text, change);
  return {
    path,
    rules,
    id,
    decision,
    ...(code === undefined ? {} : { code }),
    trust,
    ...(cautions.length > 0 ? { cautions } : {}),
    ...(lines ? { edited: { of: hashOfLines(lines.old), text: edited! } } : {}),
    ...(note === undefined || note === "" ? {} : { note }),
  };
}
