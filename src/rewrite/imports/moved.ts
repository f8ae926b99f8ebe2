import { importStatements } from "../../syntax/index.js";
import type { Import, ImportStatement, ListedImport } from "../../syntax/index.js";
import { applyEdits } from "../edits.js";
import { lineEnd } from "../indent.js";
import { CannotRewrite } from "../settle.js";
import { styleOf } from "./style.js";
import { withoutItems } from "./tidy.js";

/** The statement with nothing but the module changed, where what it brings in keeps its names. */
function moduleReplaced(
  { node, module }: ImportStatement,
  item: ListedImport,
  to: Import,
): string | undefined {
  const isDefault = item.name === undefined && to.name === "default";
  if ((item.name !== to.name && !isDefault) || (item.local !== undefined && item.local !== to.local))
    return undefined;
  const from = [...node.descendants()].find(
    (part) =>
      part.text === module || (part.is(node.tree.language.strings) && part.text.slice(1, -1) === module),
  );
  if (!from || item.node.holds(from)) return undefined;
  const quote = from.text === module ? "" : from.text[0]!;
  const start = from.start - node.start;
  return node.text.slice(0, start) + quote + to.module + quote + node.text.slice(start + from.text.length);
}

/** An import statement as it is written when one of its items comes from elsewhere: by itself, or behind the others. */
export function importMoved(statement: ImportStatement, item: ListedImport, to: Import): string {
  const { node, imports } = statement;
  const { tree, start } = node;
  const inPlace = imports.length === 1 ? moduleReplaced(statement, item, to) : undefined;
  if (inPlace !== undefined) return inPlace;
  if (statement.isOther)
    throw new CannotRewrite(
      "edit.import",
      `\`${item.local}\` is taken out of its module together with other names`,
    );
  const style = styleOf(tree, importStatements(tree));
  const written = tree.language.imports
    .write([to], { ...style, isOther: statement.isOther ?? false })
    .trimEnd();
  if (imports.length === 1) return written;
  const edits = withoutItems(statement, new Set([item]));
  const rest = applyEdits(
    node.text,
    edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start })),
  );
  return rest + lineEnd(tree.text) + tree.indentAt(start) + written;
}
