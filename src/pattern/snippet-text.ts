import type { Snippet } from "./hole.js";

/** One line of a snippet: how deep it is indented, and its texts and part numbers in turn. */
export interface SnippetLine {
  /** Levels of indentation, counted in the snippet's own unit. */
  readonly level: number;
  readonly items: readonly (string | number)[];
}

/**
 * Cuts a snippet into lines and takes away the indentation that it has only because it stands in a rule file.
 * Parts appear as their number.
 */
export function linesOf(snippet: Snippet): SnippetLine[] {
  const rows: (string | number)[][] = [[]];
  snippet.texts.forEach((text, i) => {
    const [first = "", ...more] = text.split("\n");
    rows.at(-1)!.push(first);
    for (const line of more) rows.push([line]);
    if (i < snippet.parts.length) rows.at(-1)!.push(i);
  });
  const isBlank = (row: (string | number)[]): boolean =>
    row.every((item) => typeof item === "string" && item.trim() === "");
  while (rows.length > 1 && isBlank(rows[0]!)) rows.shift();
  while (rows.length > 1 && isBlank(rows.at(-1)!)) rows.pop();

  const depths = rows.map((row) => {
    const first = row[0];
    return typeof first === "string" ? first.length - first.trimStart().length : 0;
  });
  const filled = depths.filter((_, i) => !isBlank(rows[i]!));
  const least = Math.min(...filled);
  const unit = Math.min(...filled.filter((depth) => depth > least).map((depth) => depth - least));
  return rows.map((row, i) => {
    const items = row.filter((item) => item !== "");
    if (typeof row[0] === "string") {
      const trimmed = row[0].trimStart();
      items.splice(0, row[0] === "" ? 0 : 1, ...(trimmed === "" ? [] : [trimmed]));
    }
    const last = items.at(-1);
    if (typeof last === "string") items[items.length - 1] = last.trimEnd();
    const level = Number.isFinite(unit) ? Math.round((depths[i]! - least) / unit) : 0;
    return { level: isBlank(row) ? 0 : level, items };
  });
}
