import type { Position, Range } from "vscode-languageserver/node";
import type { PlanChange } from "../plan/index.js";
import { changeLines, SIGN } from "../report/index.js";
import type { Edit } from "../rewrite/index.js";
import type { Rule } from "../rules/index.js";
import type { TextRange } from "../syntax/index.js";
import { meet, rangeOf } from "./convert.js";
import type { OpenFile } from "./open-files.js";

/** What there is to say of a place in a file, in Markdown, and how far it goes; undefined where there is nothing. */
export async function hoverAt(
  { plan: { changes, advice, heldBack }, text, workspace }: OpenFile,
  at: Position,
): Promise<{ readonly says: string; readonly range: Range } | undefined> {
  const isHere = ({ range }: { readonly range: TextRange }): boolean =>
    meet(rangeOf(range), { start: at, end: at });
  const change = changes.find(isHere);
  if (change) {
    const edits = await workspace.edits(change).catch(() => change.edits);
    const rule = workspace.project.allRules.find(({ id }) => id === change.rules[0]);
    return { says: ofChange(change, text, edits, rule), range: rangeOf(change.range) };
  }
  const advised = advice.find(isHere);
  if (advised)
    return { says: ofPlace(advised.title, advised.rule, advised.says), range: rangeOf(advised.range) };
  const held = heldBack.find(isHere);
  return held && { says: ofPlace("Held back", held.rule, held.reason), range: rangeOf(held.range) };
}

/** One change: what, why, how sure and on what grounds, and the lines. */
function ofChange(change: PlanChange, text: string, edits: readonly Edit[], rule: Rule | undefined): string {
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

/** A place that was not changed, or only reported. */
const ofPlace = (title: string, rule: string, says: string): string =>
  `**${escaped(title)}** · \`${rule}\`\n\n${escaped(says)}`;

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
