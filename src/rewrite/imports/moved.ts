import { importStatements } from "../../syntax/index.js";
import type { Import, ImportStatement, ListedImport, SyntaxNode } from "../../syntax/index.js";
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
  const from = moduleIn(node, module);
  return !from || item.node.holds(from) ? undefined : withTexts(node, [replaced(from, module, to.module)]);
}

/** Where a statement names its module, with quotes or without. */
function moduleIn(node: SyntaxNode, module: string): SyntaxNode | undefined {
  const { strings } = node.tree.language;
  return [...node.descendants()].find(
    (part) => part.text === module || (part.is(strings) && part.text.slice(1, -1) === module),
  );
}

/** Another text in the place of a node. */
interface Replaced {
  readonly at: SyntaxNode;
  readonly text: string;
}

function replaced(at: SyntaxNode, module: string, now: string): Replaced {
  const quote = at.text === module ? "" : at.text[0]!;
  return { at, text: quote + now + quote };
}

/** The statement with another name in its place, where the module stays or is the only one that is read. */
function nameReplaced(statement: ImportStatement, item: ListedImport, to: Import): string | undefined {
  const { node, module, imports, isOther } = statement;
  const { member } = item;
  if (member) {
    const from = moduleIn(node, module);
    if (!from || to.name === undefined || to.name === "default") return undefined;
    return withTexts(node, [replaced(from, module, to.module), { at: member, text: to.name }]);
  }
  const isListed =
    to.name !== undefined && to.name !== "default" && item.name !== undefined && item.name !== "default";
  // An item that says itself what it is (`type Hive`) is written anew.
  const isPlain = item.form === statement.form && item.form === to.form && !item.node.same(node);
  if (module !== to.module || !isListed || !isPlain) return undefined;
  if (imports.some((one) => one !== item && one.name === to.name)) return undefined;
  const written = node.tree.language.imports.item(to);
  return withTexts(node, [{ at: item.node, text: isOther ? written.replace(" as ", ": ") : written }]);
}

function withTexts(node: SyntaxNode, changes: readonly Replaced[]): string {
  const at = node.start;
  const edits = changes.map(({ at: { start, end }, text }) => ({ start: start - at, end: end - at, text }));
  return applyEdits(node.text, edits);
}

/** An import statement as it is written when one of its items comes from elsewhere: by itself, or behind the others. */
export function importMoved(statement: ImportStatement, item: ListedImport, to: Import): string {
  const { node, imports, isOther = false } = statement;
  const { tree, start } = node;
  const inPlace =
    (imports.length === 1 ? moduleReplaced(statement, item, to) : undefined) ??
    nameReplaced(statement, item, to);
  if (inPlace !== undefined) return inPlace;
  const style = styleOf(tree, importStatements(tree));
  const written = tree.language.imports.write([to], { ...style, isOther }).trimEnd();
  if (isOther && !importStatements(tree).some((one) => one.node.same(node)))
    throw new CannotRewrite(
      "edit.import",
      `\`${item.local}\` is taken out of its module together with other names`,
    );
  const own = isOther ? written.replace(/^const\b/, /^\w+/.exec(node.text)?.[0] ?? "const") : written;
  if (imports.length === 1) return own;
  const edits = withoutItems(statement, new Set([item]));
  const rest = applyEdits(
    node.text,
    edits.map((edit) => ({ ...edit, start: edit.start - start, end: edit.end - start })),
  );
  return rest + lineEnd(tree.text) + tree.indentAt(start) + own;
}
