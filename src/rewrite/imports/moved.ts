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
  const from = [...node.descendants()].find(
    (part) =>
      part.text === module || (part.is(node.tree.language.strings) && part.text.slice(1, -1) === module),
  );
  if (!from || item.node.holds(from)) return undefined;
  const quote = from.text === module ? "" : from.text[0]!;
  const start = from.start - node.start;
  return node.text.slice(0, start) + quote + to.module + quote + node.text.slice(start + from.text.length);
}

/** The statement with another name in its place, where the module stays or is the only one that is read. */
function nameReplaced(statement: ImportStatement, item: ListedImport, to: Import): string | undefined {
  const { node, module, imports, isOther } = statement;
  const { member } = item;
  if (member) {
    const changes = [
      { at: member, text: to.name ?? "" },
      ...(module === to.module
        ? []
        : [...node.descendants()]
            .filter((part) => isModule(part, module))
            .map((at) => ({
              at,
              text: at.text[0]! + to.module + at.text[0]!,
            }))),
    ];
    return to.name === undefined || to.name === "default" ? undefined : withTexts(node, changes);
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

const isModule = (part: SyntaxNode, module: string): boolean =>
  part.is(part.tree.language.strings) && part.text.slice(1, -1) === module;

function withTexts(
  node: SyntaxNode,
  changes: readonly { readonly at: SyntaxNode; readonly text: string }[],
): string {
  const edits = changes.map(({ at, text }) => ({
    start: at.start - node.start,
    end: at.end - node.start,
    text,
  }));
  return applyEdits(
    node.text,
    edits.sort((a, b) => a.start - b.start),
  );
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
