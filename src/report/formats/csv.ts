import { stringify } from "csv-stringify/sync";
import type { Stock } from "../stock/stock.js";
import { plainText } from "./escapes.js";

const COLUMNS = [
  "path",
  "line",
  "rule",
  "kind",
  "what",
  "trust",
  "work",
  "byName",
  "outcome",
  "step",
  "says",
  "evidence",
  "link",
  "id",
] as const;

/** A row for each place, as spreadsheets read it (RFC 4180), in which nothing is taken for a formula. */
export function csvReport({ places }: Stock): string {
  const rows = places.map((place) => ({
    ...place,
    byName: place.byName ? "by name alone" : "",
    outcome: place.outcome?.is,
    evidence: [...place.evidence, ...place.cautions].join("; "),
  }));
  return csvOf([COLUMNS, ...rows.map((row) => COLUMNS.map((column) => row[column]))]);
}

/** One cell, as it stands in such a row. */
export function csvCell(value: unknown): string {
  return csvOf([[value]]).replace(/\r\n$/, "");
}

function csvOf(rows: readonly (readonly unknown[])[]): string {
  const plain = rows.map((row) => row.map((cell) => (typeof cell === "string" ? plainText(cell) : cell)));
  return stringify(plain, { record_delimiter: "windows", escape_formulas: true });
}
