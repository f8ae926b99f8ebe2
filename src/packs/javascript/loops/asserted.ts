import { condition, nameInFile, no, shortened, unknown, valuesOf, yes } from "../../../core.js";
import type { Answer, Condition, Match, SyntaxNode } from "../../../core.js";

/** What is looked up, without the `!` that says that it is there. */
export const withoutSign = (read: SyntaxNode): SyntaxNode =>
  read.is("non_null_expression") ? read.firstPart! : read;

/** A `!` behind what is looked up says that there is such an item; it may also say that the item itself is there. */
export function assertsNoMore(): Condition {
  return condition("`!` says no more than that there is such an item", itemsAreThere, {
    when: ({ loop }) => loop.lookUps.some((read) => read.is("non_null_expression")),
  });
}

function itemsAreThere(match: Match): Answer {
  const { items, lookUps } = match.loop;
  return holdsNoMissing(
    match,
    items,
    lookUps.find((one) => one.is("non_null_expression"))!,
  );
}

/** Is no item of a list or a record null or undefined, by its type? */
export function holdsNoMissing(match: Match, items: SyntaxNode, at: SyntaxNode): Answer {
  const code = "value.null";
  const type = valuesOf(match, items)?.text;
  const open = unknown(code, `an item of \`${shortened(items.text)}\` could be null or undefined`, at);
  if (type === undefined) return open;
  const says = `\`${shortened(items.text)}\` is \`${type}\``;
  if (/\b(null|undefined|any|unknown)\b/.test(type))
    return no(code, `${says}, whose items may be missing`, at);
  const item = OF_ITEMS.exec(type)
    ?.slice(1)
    .find((one) => one !== undefined);
  return item !== undefined && isNeverMissing(item, at)
    ? yes(code, `${says}, whose items are there`, at)
    : open;
}

/** Types that say what their items are. */
const OF_ITEMS = /^(?:readonly )?([\w$]+)\[\]$|^(?:Readonly)?Array<([\w$]+)>$|^Record<\w+, ([\w$]+)>$/;

/** Is a type one of plain values, or declared in this file as that of objects? */
function isNeverMissing(type: string, { tree }: SyntaxNode): boolean {
  if (/^(string|number|boolean|bigint|symbol)$/.test(type)) return true;
  const { declarations } = nameInFile(type, tree);
  return declarations.some(({ at }) =>
    at.some((one) => one.parent?.is(["class_declaration", "interface_declaration"])),
  );
}
