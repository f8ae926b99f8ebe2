import { TRUSTS, type Trust } from "../rules/index.js";
import { codeOf, type TextOf } from "./change-code.js";
import type { Decision } from "./decision.js";
import { hashOfLines, linesOfChange } from "./edited.js";
import type { Plan, PlanChange } from "./plan.js";

/** How a change, a held-back place or a piece of advice stands with the decisions. */
export interface Standing {
  /** What was said of it, where that still holds. */
  readonly decision?: Decision["decision"];
  readonly note?: string;
  /** The lines that a person wrote in place of the proposed ones. */
  readonly edited?: string;
  /** Why what was said does not hold: then nothing is decided. */
  readonly misfit?: string;
}

/** What stands for a change in one word: what was said, that nothing was, or that it has to be said again. */
export function standsAs({ decision, misfit }: Standing): Decision["decision"] | "open" | "again" {
  return misfit === undefined ? (decision ?? "open") : "again";
}

/** How all of a plan stands with the decisions. */
export interface Standings {
  of(id: string): Standing;
  /** Decisions about what the plan does not have. */
  readonly strays: readonly Decision[];
  /** For the line of a decision that came with a renamed file: what it is about now. */
  readonly carried: ReadonlyMap<Decision, string>;
}

const NOTHING: Standing = {};

/**
 * Brings a plan and decisions together. A decision is about the change with its id; where a file was renamed, about the
 * only change with the same rules, old and new code. `textOf` gives the texts that the plan was made for, undefined for
 * a file that has other text now, and `isThere` tells whether a file of the project is (still) there.
 */
export function standingsOf(
  plan: Pick<Plan, "changes" | "heldBack" | "advice">,
  decisions: readonly Decision[],
  { textOf, isThere }: { readonly textOf: TextOf; isThere(path: string): boolean },
): Standings {
  const changes = new Map(plan.changes.map((change) => [change.id, change]));
  const places = new Set([...plan.heldBack, ...plan.advice].map(({ id }) => id));
  const byId = new Map<string, Decision[]>();
  const strays: Decision[] = [];
  for (const decision of decisions) {
    if (!changes.has(decision.id) && !places.has(decision.id)) strays.push(decision);
    else byId.set(decision.id, [...(byId.get(decision.id) ?? []), decision]);
  }
  const carried = renamed(
    plan.changes.filter(({ id }) => !byId.has(id)),
    strays.filter(({ path }) => !isThere(path)),
    textOf,
  );
  for (const [decision, id] of carried) byId.set(id, [...(byId.get(id) ?? []), decision]);
  const known = new Map<string, Standing>();
  for (const [id, said] of byId) {
    const change = changes.get(id);
    known.set(id, change ? standing(change, said, textOf) : placeStanding(said));
  }
  return {
    of: (id) => known.get(id) ?? NOTHING,
    strays: strays.filter((decision) => !carried.has(decision)),
    carried,
  };
}

/** Decisions of files that are gone, with the one change each can be about. */
function renamed(
  changes: readonly PlanChange[],
  strays: readonly Decision[],
  textOf: TextOf,
): Map<Decision, string> {
  const result = new Map<Decision, string>();
  if (strays.length === 0) return result;
  const keyOf = (rules: readonly string[], code: string): string => JSON.stringify([rules, code]);
  const alike = new Map<string, { ids: string[]; said: Decision[] }>();
  const at = (key: string): { ids: string[]; said: Decision[] } => {
    const known = alike.get(key) ?? { ids: [], said: [] };
    alike.set(key, known);
    return known;
  };
  for (const decision of strays)
    if (decision.code !== undefined) at(keyOf(decision.rules, decision.code)).said.push(decision);
  for (const change of changes) {
    const code = codeOf(change, textOf);
    if (code !== undefined) at(keyOf(change.rules, code)).ids.push(change.id);
  }
  for (const { ids, said } of alike.values())
    if (ids.length === 1 && said.length === 1) result.set(said[0]!, ids[0]!);
  return result;
}

function standing(change: PlanChange, said: readonly Decision[], textOf: TextOf): Standing {
  const [first, ...others] = said;
  const { decision, note, edited, code, trust, cautions = [] } = first!;
  const kept = note === undefined ? {} : { note };
  const misfit = (why: string): Standing => ({ ...kept, misfit: why });
  if (others.some((other) => other.decision !== decision || other.edited?.text !== edited?.text))
    return misfit(`there are two decisions: ${said.map((one) => one.decision).join(" and ")}`);
  if (code === undefined || trust === undefined)
    return misfit(`"${decision}" does not say which code it was about`);
  // A file that has other text now has no code to compare; nothing is written to it before the plan is made anew.
  const now = codeOf(change, textOf);
  if (now !== undefined && code !== now) return misfit(`"${decision}" was said of other new code`);
  if (decision === "keep") {
    if (isLess(change.trust, trust))
      return misfit(`"keep" was said when the change was ${trust}; it is only ${change.trust} now`);
    const added = change.cautions.find((caution) => !cautions.includes(caution.code));
    if (added) return misfit(`"keep" was said before there was this caution: ${added.says}`);
  }
  if (!edited) return { decision, ...kept };
  const text = textOf(change.path);
  const lines = text === undefined ? undefined : linesOfChange(text, change);
  if (text !== undefined && (!lines || hashOfLines(lines.old) !== edited.of))
    return misfit("the code around it is not what it was when it was edited by hand");
  return { decision, ...kept, edited: edited.text };
}

function placeStanding([first, ...others]: readonly Decision[]): Standing {
  const { decision, note } = first!;
  const kept = note === undefined ? {} : { note };
  if (others.some((other) => other.decision !== decision))
    return { ...kept, misfit: `there are two decisions: ${decision} and ${others[0]!.decision}` };
  return { decision, ...kept };
}

function isLess(now: Trust, then: Trust): boolean {
  return TRUSTS.indexOf(now) > TRUSTS.indexOf(then);
}
