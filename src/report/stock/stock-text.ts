import { plural } from "../counted.js";
import type { Paint } from "../paint.js";
import type { Count, Stock } from "./stock.js";

/** How much of the work is whose, step by step and person by person, for a terminal. */
export function stockText({ all, bySteps, byOwner, effort }: Stock, paint: Paint): string {
  if (all.total === 0) return "";
  const out = [];
  if (bySteps.length > 0) out.push("", ...table("version", bySteps, paint));
  if (byOwner.length > 0) out.push("", ...table("owner", byOwner.slice(0, 12), paint));
  const byName = all.byName > 0 ? ` (${all.byName} by name alone)` : "";
  const { automatic, review, hand } = effort;
  out.push(
    "",
    `work           ${all.automatic} automatic, ${all.review} to review${byName}, ${all.hand} by hand: ` +
      `about ${all.hours} ${all.hours === 1 ? "hour" : "hours"}`,
    paint.dim(
      `               (with ${automatic}, ${review} and ${hand} minutes for each; \`effort\` in the config)`,
    ),
  );
  return `${out.join("\n")}\n`;
}

function table(head: string, counts: readonly Count[], paint: Paint): string[] {
  const width = Math.max(head.length, ...counts.map(({ name }) => name.length)) + 2;
  const cell = (value: number | string): string => String(value).padStart(11);
  const heads = ["places", "automatic", "to review", "by hand", "hours"];
  return [
    paint.dim(head.padEnd(width) + heads.map(cell).join("")),
    ...counts.map(
      ({ name, total, automatic, review, hand, hours }) =>
        name.padEnd(width) + [total, automatic, review, hand, hours].map(cell).join(""),
    ),
  ];
}

/** What an earlier survey counted. */
export interface Earlier {
  /** The day on which it was made, or the name of its file. */
  readonly name: string;
  readonly total: number;
  readonly byRule: ReadonlyMap<string, number>;
}

const MOST_RULES = 8;

/** What has become more or less since an earlier survey: in all, then by rule, the largest differences first. */
export function comparedWith({ name, total, byRule }: Earlier, stock: Stock): string[] {
  const now = new Map(stock.byRule.map((one) => [one.name, one.total]));
  const moved = [...new Set([...byRule.keys(), ...now.keys()])]
    .map((rule) => ({ rule, was: byRule.get(rule) ?? 0, is: now.get(rule) ?? 0 }))
    .filter(({ was, is }) => was !== is)
    .sort((a, b) => Math.abs(b.is - b.was) - Math.abs(a.is - a.was) || (a.rule < b.rule ? -1 : 1));
  const more = moved.length - MOST_RULES;
  return [
    `Since ${name}: ${total} → ${plural(stock.all.total, "place")}`,
    ...moved.slice(0, MOST_RULES).map(({ rule, was, is }) => `  ${rule} ${was} → ${is}`),
    ...(more > 0 ? [`  and ${plural(more, "more rule")}`] : []),
  ];
}
