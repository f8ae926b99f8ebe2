import { TRUSTS } from "../rules/index.js";
import { paintTrust, type Paint } from "./paint.js";
import { plural, sum } from "./counted.js";
import type { Survey } from "./survey.js";

/** One row of the table. */
interface Row {
  readonly rule: string;
  readonly kind: string;
  readonly counts: readonly number[];
  readonly advice: number;
  readonly heldBack: number;
  readonly files: number;
}

const BAR = 14;
/** A row for each rule that found something. */
export function rowsOf({ rules, changes, heldBack, advice }: Survey): Row[] {
  const rows: Row[] = [];
  for (const rule of rules) {
    const own = changes.filter((change) => change.rules[0] === rule.id);
    const held = heldBack.filter((entry) => entry.rule.split(" + ")[0] === rule.id);
    const advised = advice.filter((entry) => entry.rule === rule.id);
    if (own.length + held.length + advised.length === 0) continue;
    rows.push({
      rule: rule.id,
      kind: rule.kind,
      counts: TRUSTS.map((trust) => own.filter((change) => change.trust === trust).length),
      advice: advised.length,
      heldBack: held.length,
      files: new Set([...own, ...held, ...advised].map((entry) => entry.path)).size,
    });
  }
  return rows;
}

/** The rules as rows of a table: with bars and kinds where the width lets them be, else each with its counts under it. */
export function table(rows: readonly Row[], paint: Paint, width: number): string[] {
  const name = Math.max(...rows.map((row) => row.rule.length), "rule".length) + 2;
  for (const [kinds, bars] of [
    [KIND, BAR],
    [KIND, 0],
    [0, 0],
  ] as const)
    if (name + kinds + COUNTS + (bars && bars + 2) <= width)
      return tableOf(rows, paint, { name, kinds, bars });
  return [
    ...rows.flatMap((row) => [row.rule, `  ${inWords(row, paint)} in ${plural(row.files, "file")}`]),
    paint.bold("all"),
    `  ${inWords(totalOf(rows), paint)}`,
  ];
}

function totalOf(rows: readonly Row[]): Pick<Row, "counts" | "advice" | "heldBack"> {
  return {
    counts: TRUSTS.map((_, i) => sum(rows.map((row) => row.counts[i]!))),
    advice: sum(rows.map((row) => row.advice)),
    heldBack: sum(rows.map((row) => row.heldBack)),
  };
}

function inWords(
  { counts, advice, heldBack }: Pick<Row, "counts" | "advice" | "heldBack">,
  paint: Paint,
): string {
  const said = [
    ...counts.map((count, i) => [count, TRUSTS[i]!, paintTrust(paint, TRUSTS[i]!)] as const),
    [advice, "advice", paint.yellow] as const,
    [heldBack, "held back", paint.cyan] as const,
  ];
  const found = said
    .filter(([count]) => count > 0)
    .map(([count, what, colour]) => colour(`${count} ${what}`));
  return found.join(", ");
}

interface Columns {
  readonly name: number;
  readonly kinds: number;
  readonly bars: number;
}

/** The width of the columns with counts. */
const COUNTS = 57;
const KIND = 12;

function tableOf(rows: readonly Row[], paint: Paint, { name, kinds, bars }: Columns): string[] {
  const most = Math.max(...rows.map((row) => sum(row.counts)), 1);
  const kindOf = (kind: string): string => (kinds > 0 ? kind.padEnd(kinds) : "");
  const head =
    "rule".padEnd(name) +
    kindOf("kind") +
    TRUSTS.map((trust) => trust.padStart(10)).join("") +
    "advice".padStart(9) +
    "held back".padStart(11) +
    "files".padStart(7);
  const lines = rows.map(
    (row) =>
      row.rule.padEnd(name) +
      kindOf(row.kind) +
      row.counts.map((count, i) => number(count, 10, paintTrust(paint, TRUSTS[i]!), paint)).join("") +
      number(row.advice, 9, paint.yellow, paint) +
      number(row.heldBack, 11, paint.cyan, paint) +
      String(row.files).padStart(7) +
      (bars > 0 ? "  " + bar(row.counts, most, paint) : ""),
  );
  const total = totalOf(rows);
  const last =
    "all".padEnd(name + kinds) +
    total.counts.map((count) => String(count).padStart(10)).join("") +
    String(total.advice).padStart(9) +
    String(total.heldBack).padStart(11);
  return [paint.dim(head), ...lines, paint.bold(last)];
}

function number(count: number, width: number, colour: (text: string) => string, paint: Paint): string {
  const shown = String(count).padStart(width);
  return count === 0 ? paint.dim(shown) : colour(shown);
}

function bar(counts: readonly number[], most: number, paint: Paint): string {
  return counts
    .map((count, i) => paintTrust(paint, TRUSTS[i]!)("▆".repeat(Math.ceil((BAR * count) / most))))
    .join("");
}
