import {
  proofSentence,
  SET_ASIDE,
  withText,
  type Plan,
  type PlanChange,
  type Standing,
} from "../../plan/index.js";
import { changeText, elsewhereLines, placeBehind, shownPath, type Paint } from "../../report/index.js";
import type { Review } from "../../workspace/index.js";
import { printable } from "../deliver.js";

/** A held-back place, or a piece of advice. */
export type Place = Plan["heldBack"][number] | Plan["advice"][number];

const NARROWEST = 40;
const MOST_LINES = 12;

/** All there is to know of a change; what must not be overlooked stands last, beside the question. */
export async function changeScreen(
  review: Review,
  change: PlanChange,
  { edited, note }: Standing,
  paint: Paint,
): Promise<string[]> {
  const textOf = (path: string): string => review.textOf(path) ?? "";
  const text = textOf(change.path);
  const edits = edited === undefined ? await review.edits(change) : withText(text, change, edited).edits;
  const width = Math.max(process.stdout.columns || 80, NARROWEST);
  const body = { ...change, cautions: [] };
  const out = [changeText(body, text, text === "" ? [] : edits, paint, width)];
  if (change.elsewhere.every(({ path }) => textOf(path) !== ""))
    out.push(...elsewhereLines(change, textOf, paint));
  const outdated = review.outdatedOf(change).map(shownPath).join(", ");
  if (outdated !== "") out.push(paint.yellow(`  ! ${outdated} has changed since; p proposes again`));
  for (const caution of change.cautions) {
    const where = placeBehind(caution, change.line);
    out.push(paint.yellow(`  ! CAUTION: ${caution.says}${where} · ${caution.code}`));
  }
  const proof = review.proof(change);
  if (proof && note?.startsWith(SET_ASIDE) !== true) {
    const painted = proof.passed ? paint.green : paint.yellow;
    out.push(painted(`  prove: ${proofSentence(proof)}`), ...proof.lines.map((line) => `      ${line}`));
  }
  return out;
}

/** A place with its code, and why it stands here. */
export function placeScreen(review: Review, place: Place, paint: Paint): string[] {
  const { path, line, rule, range } = place;
  const out = [`${paint.bold(`${shownPath(path)}:${line}`)}  ${rule}`];
  const lines = (review.textOf(path) ?? "").split("\n");
  const last = Math.min(range.end.line, range.start.line + MOST_LINES);
  for (let i = Math.max(range.start.line - 2, 1); i <= Math.min(last + 2, lines.length); i++) {
    const shown = `    ${String(i).padStart(5)}  ${lines[i - 1] ?? ""}`;
    out.push(i >= range.start.line && i <= last ? paint.bold(shown) : paint.dim(shown));
  }
  if ("reason" in place) {
    const where = placeBehind({ line: place.at, path: place.atPath }, line);
    out.push(`  held back: ${place.reason}${where} · ${place.code}`);
  } else out.push(`  advice: ${place.says}`);
  return out;
}

/** A text without signs that only some terminals have, and with control characters shown. */
export function plain(text: string): string {
  const safe = printable(text);
  if (HAS_UNICODE) return safe;
  return safe.replace(/[✓✗·…→—]/g, (sign) => ASCII[sign]!).replace(/[^\u0000-\u007f]/g, "?");
}

const ASCII: Readonly<Record<string, string>> = {
  "✓": "+",
  "✗": "x",
  "·": "-",
  "…": "...",
  "→": "->",
  "—": "-",
};
const HAS_UNICODE = /utf-?8/i.test(
  process.env["LC_ALL"] ||
    process.env["LC_CTYPE"] ||
    process.env["LANG"] ||
    (process.platform === "linux" ? "" : "utf-8"),
);
