import type { Advice, HeldBack } from "../engine/index.js";
import type { Plan, PlanChange } from "../plan/index.js";
import type { Edit } from "../rewrite/index.js";
import { paintTrust, SIGN, type Paint } from "./paint.js";
import { placeBehind, shownPath } from "./path.js";
import { plural } from "./counted.js";
import { changeLines, type DiffLine } from "./diff-lines.js";

/**
 * A plan for reading in a terminal: each change with what speaks for it, then what was held back. `editsOf` gives
 * all that a change does to its file, imports too; `width` is how many characters a line has room for.
 */
export function proposalText(
  plan: Plan,
  textOf: (path: string) => string,
  editsOf: (change: PlanChange) => readonly Edit[],
  paint: Paint,
  width = WIDTH,
): string {
  const out: string[] = [];
  for (const change of plan.changes) {
    out.push(changeText(change, textOf(change.path), editsOf(change), paint, Math.min(width, WIDTH)));
    out.push(...elsewhereLines(change, textOf, paint));
    out.push("");
  }
  if (plan.advice.length > 0) {
    out.push(paint.bold(`Advice: ${plural(plan.advice.length, "place")} to look at by hand`));
    for (const entry of plan.advice) out.push(...adviceLines(entry, textOf(entry.path), paint));
    out.push("");
  }
  if (plan.heldBack.length > 0) {
    out.push(paint.bold(`Held back: ${plural(plan.heldBack.length, "place")}`));
    for (const entry of plan.heldBack) out.push(heldBackLine(entry, paint));
    out.push("");
  }
  return out.join("\n");
}

/** One change: where, what, how sure and why, and the lines. `width` is that of the terminal. */
export function changeText(
  change: PlanChange,
  text: string,
  edits: readonly Edit[],
  paint: Paint,
  width = WIDTH,
): string {
  const trust = paintTrust(paint, change.trust)(change.trust);
  const out = [
    `${paint.bold(`${shownPath(change.path)}:${change.line}`)}  ${change.title}`,
    `  ${trust} ${paint.dim("·")} ${change.kind} ${paint.dim("·")} ${change.rules.join(" + ")} ${paint.dim(`· ${change.id}`)}`,
  ];
  const said = change.evidence.map((ground) => {
    const { answer, code, says } = ground;
    return { answer, code, says: says + placeBehind(ground, change.line) };
  });
  const known = said.filter((ground) => ground.answer === "yes").map((ground) => ground.says);
  for (const line of filled(known, width - 4)) out.push(`  ${paint.green(SIGN.yes)} ${line}`);
  for (const { answer, code, says } of said) {
    if (answer !== "yes") out.push(`  ${paint.yellow(SIGN[answer])} ${says} ${paint.dim(`· ${code}`)}`);
  }
  for (const { code, says } of change.cautions)
    out.push(`  ${paint.yellow(`! ${says}`)} ${paint.dim(`· ${code}`)}`);
  for (const note of change.notes) out.push(paint.dim(`  · ${note}`));
  return [...out, ...differenceLines(text, edits, paint)].join("\n");
}

/** What a change does to other files than its own. */
export function elsewhereLines(
  { elsewhere }: PlanChange,
  textOf: (path: string) => string,
  paint: Paint,
): string[] {
  return elsewhere.flatMap(({ path, edits }) => [
    `  ${paint.bold(shownPath(path))}`,
    ...differenceLines(textOf(path), edits, paint),
  ]);
}

function differenceLines(text: string, edits: readonly Edit[], paint: Paint): string[] {
  if (edits.length === 0) return [];
  const lines = changeLines(text, edits);
  const width = String(Math.max(...lines.map((line) => line.line ?? 0))).length;
  return lines.map((line) => diffLine(line, width, paint));
}

const WIDTH = 108;

/** Sentences side by side, as many as fit on a line. */
function filled(sentences: readonly string[], width: number): string[] {
  const lines: string[] = [];
  for (const sentence of sentences) {
    const last = lines.at(-1);
    if (last !== undefined && last.length + sentence.length + 2 <= width)
      lines[lines.length - 1] = `${last}; ${sentence}`;
    else lines.push(sentence);
  }
  return lines;
}

function diffLine({ mark, text, line, parts = [] }: DiffLine, width: number, paint: Paint): string {
  const number = (line === undefined ? "" : String(line)).padStart(width);
  const head = `    ${number} ${mark} `;
  if (mark !== "-" && mark !== "+") return paint.dim(`${head}${text}`.trimEnd());
  const colour = mark === "-" ? paint.red : paint.green;
  let shown = head;
  let at = 0;
  for (const [start, end] of parts) {
    shown += text.slice(at, start) + paint.inverse(text.slice(start, end));
    at = end;
  }
  return colour(`${shown}${text.slice(at)}`.trimEnd());
}

function adviceLines(
  { path, line, rule, trust, says, evidence }: Advice,
  text: string,
  paint: Paint,
): string[] {
  const code = (text.split("\n")[line - 1] ?? "").trim();
  const grounds = evidence.map((ground) => {
    const { answer, code: about, says: said } = ground;
    const where = placeBehind(ground, line);
    if (answer === "yes") return `    ${paint.green(SIGN.yes)} ${said}${where}`;
    return `    ${paint.yellow(SIGN[answer])} ${said}${where} ${paint.dim(`· ${about}`)}`;
  });
  const head = `  ${shownPath(path)}:${line}  ${paintTrust(paint, trust)(trust)} ${paint.dim(`· ${rule}`)}`;
  return [head, `    ${paint.dim(code)}`, `    ${says}`, ...grounds];
}

function heldBackLine({ path, line, rule, code, reason, at, atPath }: HeldBack, paint: Paint): string {
  const where = placeBehind({ line: at, path: atPath }, line);
  return `  ${shownPath(path)}:${line}  ${paint.dim(rule)}\n    ${reason}${where} ${paint.dim(`· ${code}`)}`;
}
