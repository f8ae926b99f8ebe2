import type { Plan, PlanChange } from "../plan/index.js";
import { changeLines } from "../report/index.js";
import type { Edit } from "../rewrite/index.js";
import type { Rule } from "../rules/index.js";

const SIGN = { yes: "✓", unknown: "?", no: "✗" } as const;

/** One change in Markdown: what, why, how sure and on what grounds, and the lines. */
export function hoverOfChange(
  change: PlanChange,
  text: string,
  edits: readonly Edit[],
  rule: Rule | undefined,
): string {
  // What is in doubt is read first.
  const ordered = [...change.evidence].sort(
    (a, b) => Number(a.answer === "yes") - Number(b.answer === "yes"),
  );
  const grounds = ordered.map(({ answer, says }) => `- ${SIGN[answer]} ${escaped(says)}`);
  const cautions = change.cautions.map(({ says }) => `- ! ${escaped(says)}`);
  const lines = changeLines(text, edits, 0).map(({ mark, text: line }) => `${mark} ${line}`);
  return [
    `**${escaped(change.title)}** · ${change.trust} · \`${change.rules.join(" + ")}\``,
    ...(rule ? ["", escaped(rule.why)] : []),
    "",
    ...cautions,
    ...grounds,
    "",
    ...fenced("diff", lines.join("\n")),
    ...(rule?.link === undefined ? [] : ["", `[More about it](${rule.link})`]),
  ].join("\n");
}

/** A place that was not changed, or only reported, with the reason. */
export function hoverOfPlace(
  { rule, says }: { readonly rule: string; readonly says: string },
  title: string,
): string {
  return `**${escaped(title)}** · \`${rule}\`\n\n${escaped(says)}`;
}

export const hoverOfHeldBack = ({ rule, reason }: Plan["heldBack"][number]): string =>
  hoverOfPlace({ rule, says: reason }, "Held back");

/** Code in sentences stays code; what else Markdown would take for its own does not. */
function escaped(text: string): string {
  return text
    .split(/(`[^`]*`)/)
    .map((part, i) => (i % 2 === 1 ? part : part.replace(/[\\*_[\]<>#]/g, "\\$&")))
    .join("");
}

/** A fenced block whose fence is longer than any in the code. */
function fenced(language: string, code: string): string[] {
  const longest = Math.max(2, ...[...code.matchAll(/`{3,}/g)].map(([fence]) => fence.length));
  const fence = "`".repeat(longest + 1);
  return [fence + language, code, fence];
}
