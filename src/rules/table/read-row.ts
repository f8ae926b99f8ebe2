import { checkPattern, SnippetError, type Snippet } from "../../pattern/index.js";
import { RuleError } from "../rule.js";
import { CellError, holesIn, needsIn, restsIn, snippetIn, type Names } from "./code-text.js";
import type { ChangeRow, Table } from "./row.js";

/** The code of a row, read. */
export interface ReadRow {
  readonly names: Names;
  readonly old: Snippet;
  readonly now: Snippet | undefined;
}

/** Reads the code of a row. Throws a RuleError that names the row and the column for what cannot be read. */
export function readRow(row: ChangeRow, { language, module }: Table, where: string): ReadRow {
  const inCell = <T>(column: string, read: () => T): T => cell(where, column, read);
  const holes = inCell("any", () => holesIn(row.any ?? "", module));
  const needs = inCell("from", () => needsIn(row.from ?? "", module));
  const others = inCell("to", () => needsIn(row.to ?? "", module));
  const old = inCell("old", () => snippetIn(row.old, language, { holes, needs }));
  inCell("old", () => checkPattern(old));
  for (const name of [...holes.keys(), ...needs.keys()])
    if (!old.parts.some((part) => part === holes.get(name)?.hole || part === needs.get(name)))
      throw new RuleError(`${where}: "${name}" is not in \`old\``);
  const later = { holes, needs: new Map([...needs, ...others]) };
  const now = row.new === undefined ? undefined : inCell("new", () => snippetIn(row.new!, language, later));
  if (now && restsIn(now) > restsIn(old))
    throw new RuleError(
      `${where}, new: it has more \`…\` than \`old\`; the first stands for what the first does there`,
    );
  return { names: { holes, needs }, old, now };
}

/** Reads one cell of a row. Throws a RuleError that names the row and the column for what cannot be read. */
export function cell<T>(where: string, column: string, read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof CellError || error instanceof SnippetError)
      throw new RuleError(`${where}, ${column}: ${error.message}`);
    throw error;
  }
}
