import {
  fits,
  fitsPlace,
  KINDS,
  standsAs,
  TRUSTS,
  type Filter,
  type Kind,
  type Plan,
  type PlanChange,
  type Standings,
  type Trust,
} from "uvran/core";

export type HeldBack = Plan["heldBack"][number];
export type Advice = Plan["advice"][number];
export type Tab = "changes" | "held" | "advice";
export const GROUPINGS = ["file", "rule", "kind", "trust"] as const;
export type Grouping = (typeof GROUPINGS)[number];
export const SHOWN = ["all", "open", "keep", "drop", "later", "again"] as const;
export type Shown = (typeof SHOWN)[number];

/** What is looked at, as it stands in the address. */
export interface View {
  readonly tab: Tab;
  readonly by: Grouping;
  readonly shown: Shown;
  readonly filter: Filter;
  /** Words that must stand in the title, path, rule, or evidence. */
  readonly search: string;
  readonly at: string | undefined;
}

export function viewOf(hash: URLSearchParams): View {
  const one = <T extends string>(name: string, of: readonly T[], preset: T): T =>
    of.find((value) => value === hash.get(name)) ?? preset;
  const many = (name: string): { [key: string]: string[] } => {
    const values = hash.getAll(name);
    return values.length > 0 ? { [`${name}s`]: values } : {};
  };
  const trust = TRUSTS.find((value) => value === hash.get("trust"));
  const kinds = hash
    .getAll("kind")
    .filter((kind): kind is Kind => (KINDS as readonly string[]).includes(kind));
  return {
    tab: one("tab", ["changes", "held", "advice"], "changes"),
    by: one("by", GROUPINGS, "file"),
    shown: one("shown", SHOWN, "all"),
    filter: {
      ...(trust ? { trust } : {}),
      ...many("rule"),
      ...many("path"),
      ...many("code"),
      ...many("id"),
      ...(kinds.length > 0 ? { kinds } : {}),
    },
    search: hash.get("search") ?? "",
    at: hash.get("at") ?? undefined,
  };
}

/** The changes of a view, grouped and in order. */
export function changesIn(
  plan: Plan,
  standings: Standings,
  { by, shown, filter, search }: View,
): PlanChange[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const meant = plan.changes.filter(
    (change) =>
      fits(change, filter) &&
      (shown === "all" || standsAs(standings.of(change.id)) === shown) &&
      holdsAll(words, () => textOf(change)),
  );
  if (by === "file") return meant;
  const order = new Map(plan.changes.map(({ id }, i) => [id, i]));
  return meant.sort((a, b) => rank(a, b, by) || order.get(a.id)! - order.get(b.id)!);
}

function rank(a: PlanChange, b: PlanChange, by: Grouping): number {
  if (by === "kind") return KINDS.indexOf(a.kind) - KINDS.indexOf(b.kind);
  if (by === "trust") return TRUSTS.indexOf(a.trust) - TRUSTS.indexOf(b.trust);
  return a.rules[0]!.localeCompare(b.rules[0]!);
}

export function groupOf(change: PlanChange, by: Grouping): string {
  return { file: change.path, rule: change.rules[0]!, kind: change.kind, trust: change.trust }[by];
}

/** The held-back places and pieces of advice of a view. */
export function placesIn<T extends HeldBack | Advice>(
  places: readonly T[],
  standings: Standings,
  { shown, filter, search }: View,
): T[] {
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  return places.filter(
    (place) =>
      (shown === "all" || (shown === "open") === (standings.of(place.id).decision === undefined)) &&
      fitsPlace(place, filter) &&
      holdsAll(words, () => `${place.path} ${place.rule} ${"reason" in place ? place.reason : place.says}`),
  );
}

function holdsAll(words: readonly string[], text: () => string): boolean {
  if (words.length === 0) return true;
  const all = text().toLowerCase();
  return words.every((word) => all.includes(word));
}

function textOf({ title, path, rules, evidence, cautions, id }: PlanChange): string {
  return [
    title,
    path,
    ...rules,
    ...[...evidence, ...cautions].map(({ says, code }) => `${says} ${code}`),
    id,
  ].join(" ");
}

/** A few of a list, by chance. */
export function someOf<T>(list: readonly T[], count: number): T[] {
  const rest = [...list];
  return Array.from({ length: Math.min(count, rest.length) }, () => {
    const [one] = rest.splice(Math.floor(Math.random() * rest.length), 1);
    return one!;
  });
}

export const WORDS = {
  keep: "Kept",
  drop: "Dropped",
  later: "Later",
  done: "Done by hand",
  leave: "Left",
} as const;
export const TRUST_SIGN: Readonly<Record<Trust, string>> = { certain: "●", likely: "◐", possible: "○" };

const LONGEST_PATH = 32;

/** The end of a long path, from a folder on. */
export function tailOf(path: string): string {
  if (path.length <= LONGEST_PATH) return path;
  const parts = path.split("/");
  let tail = parts.pop()!;
  while (parts.length > 0 && tail.length + parts.at(-1)!.length < LONGEST_PATH)
    tail = `${parts.pop()!}/${tail}`;
  return parts.length > 0 ? `…/${tail}` : tail;
}
