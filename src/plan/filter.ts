import type { Kind, Trust } from "../rules/index.js";
import { TRUSTS } from "../rules/index.js";
import { pathsOf, type PlanChange } from "./plan.js";
import type { Standing } from "./standing.js";

/** Which changes are meant. All that is said must hold; of several values of one field, one is enough. */
export interface Filter {
  /** At least this sure. */
  readonly trust?: Trust;
  readonly rules?: readonly string[];
  readonly kinds?: readonly Kind[];
  /** Files and folders, relative to the root, with `/` between the parts; "" is the root. */
  readonly paths?: readonly string[];
  /** Codes of evidence that is not a plain yes, and of cautions. */
  readonly codes?: readonly string[];
  readonly ids?: readonly string[];
}

/** Is this change among those that are meant? */
export function fits(change: PlanChange, { trust, rules, kinds, paths, codes, ids }: Filter): boolean {
  return (
    (trust === undefined || TRUSTS.indexOf(change.trust) <= TRUSTS.indexOf(trust)) &&
    (rules === undefined || rules.some((rule) => change.rules.includes(rule))) &&
    (kinds === undefined || kinds.includes(change.kind)) &&
    (paths === undefined || pathsOf(change).some((path) => paths.some((given) => isBelow(path, given)))) &&
    (codes === undefined || codes.some((code) => doubtsOf(change).has(code))) &&
    (ids === undefined || ids.includes(change.id))
  );
}

/** Is this held-back place or piece of advice among those that are meant? Trust, kinds and codes are not asked. */
export function fitsPlace(
  { id, rule, path }: { readonly id: string; readonly rule: string; readonly path: string },
  { rules, paths, ids }: Filter,
): boolean {
  return (
    (rules === undefined || rules.some((one) => rule.split(" + ").includes(one))) &&
    (paths === undefined || paths.some((given) => isBelow(path, given))) &&
    (ids === undefined || ids.includes(id))
  );
}

/** The codes of what is unknown of a change, and of its cautions. */
export function doubtsOf({ evidence, cautions }: Pick<PlanChange, "evidence" | "cautions">): Set<string> {
  const unsure = evidence.filter(({ answer }) => answer !== "yes");
  return new Set([...unsure, ...cautions].map(({ code }) => code));
}

function isBelow(path: string, given: string): boolean {
  return given === "" || path === given || path.startsWith(given.endsWith("/") ? given : `${given}/`);
}

/** What an apply or a proof takes of a plan. */
export interface Selection {
  readonly chosen: readonly PlanChange[];
  readonly left: readonly Left[];
}

/** A change that is not written, with the reason. */
export interface Left {
  readonly change: PlanChange;
  readonly why: string;
}

/** Which changes to write: those that somebody keeps, and those without a decision that are sure enough. */
export interface Wish {
  readonly filter?: Filter;
  /** How sure a change must be that nobody has decided about. */
  readonly trust: Trust;
  /** Nothing without a decision. */
  readonly onlyKept?: boolean;
  /** Nothing that checks did not pass, as they are now. */
  readonly onlyProven?: boolean;
}

/** Why a change is not to be written; undefined for one that is. Whether it is among those meant is not asked. */
export function reasonLeft(
  change: PlanChange,
  { decision, misfit }: Standing,
  { trust, onlyKept = false }: Wish,
): string | undefined {
  if (misfit !== undefined) return `a decision does not fit any more: ${misfit}`;
  if (decision === "keep") return undefined;
  if (decision === "drop") return "dropped";
  if (decision === "later") return "put off until later";
  if (onlyKept) return "not decided";
  return TRUSTS.indexOf(change.trust) <= TRUSTS.indexOf(trust)
    ? undefined
    : `only ${change.trust}, and not decided`;
}
