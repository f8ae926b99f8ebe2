import type { SyntaxNode } from "../../../core.js";
import { NoState } from "./no-state.js";

/** An element of a component's markup. */
export interface Element {
  readonly node: SyntaxNode;
  /** The tag that opens it, or all of it where it has no end tag. */
  readonly tag: SyntaxNode;
  readonly name: string;
  readonly id: string;
}

const TAGS = ["jsx_opening_element", "jsx_self_closing_element"];
const TRANSPARENT = ["jsx_element", "jsx_self_closing_element", "parenthesized_expression"];

/** The attributes of an element by their names. */
export function attributesOf(tag: SyntaxNode): Map<string, SyntaxNode> {
  const list = tag.parts.filter((part) => part.is("jsx_attribute"));
  return new Map(list.map((one) => [one.firstPart!.text, one]));
}

/** The value of an attribute: a text, an expression, or nothing where the attribute has none. */
export function attributeValue(attribute: SyntaxNode): SyntaxNode | undefined {
  const value = attribute.parts[1];
  return value?.is("jsx_expression") ? value.firstPart : value;
}

/** The text in an attribute that is written out. */
export function plainText(value: SyntaxNode | undefined): string | undefined {
  if (!value?.is("string")) return undefined;
  const text = value.text.slice(1, -1);
  return /[\\&]/.test(text) ? undefined : text;
}

/** The element of a component with an id; undefined where none has it. Throws a NoState where it is not always shown. */
export function elementWithId(component: SyntaxNode, id: string): Element | undefined {
  const found = [...component.descendants()].filter((node) => node.is(TAGS) && plainText(idOf(node)) === id);
  const [tag, second] = found;
  if (!tag) return undefined;
  if (second) throw new NoState(second, `two elements have the id \`${id}\``);
  const node = tag.is("jsx_opening_element") ? tag.parent! : tag;
  const name = tag.child("name")?.text ?? "";
  if (!/^[a-z][a-z0-9]*$/.test(name)) throw new NoState(tag, `\`${name}\` is no element of the document`);
  const spread = tag.parts.find((part) => part.is("jsx_expression"));
  if (spread) throw new NoState(spread, "what attributes the element has is worked out elsewhere");
  const outside = [...node.ancestors()].find((above) => !above.is(TRANSPARENT));
  const isShown = outside?.is("return_statement") && outside.parent?.same(component.child("body"));
  if (!isShown) throw new NoState(tag, `the element \`${id}\` is not always in the document`);
  return { node, tag, name, id };
}

const idOf = (tag: SyntaxNode): SyntaxNode | undefined => {
  const attribute = attributesOf(tag).get("id");
  return attribute && attributeValue(attribute);
};

/** What stands between the tags of an element; undefined where it cannot hold text. */
export function contentOf({ node, tag }: Element): { start: number; end: number } | undefined {
  const end = node.child("close_tag");
  return end && !node.same(tag) ? { start: tag.end, end: end.start } : undefined;
}

/** Elements that can hold nothing. */
const EMPTY = /^(area|base|br|col|embed|hr|img|input|link|meta|source|track|wbr)$/;
export const canHoldText = ({ name }: Element): boolean => !EMPTY.test(name);

/** The only thing in an element: the text as the document has it, or an expression; undefined where there is more. */
export function onlyContent(element: Element): string | SyntaxNode | undefined {
  const range = contentOf(element);
  if (!range) return canHoldText(element) ? "" : undefined;
  const parts = element.node.parts.filter(({ start, end }) => range.start <= start && end <= range.end);
  const [first, more] = parts;
  if (more) return undefined;
  if (first?.is("jsx_expression")) return first.firstPart;
  const text = element.node.tree.text.slice(range.start, range.end);
  return /[&{}<>]/.test(text) ? undefined : shownText(text);
}

/** Text between tags as the document has it: lines without their indentation, joined by one space. */
function shownText(text: string): string {
  const lines = text.split(/\r?\n/);
  const last = lines.length - 1;
  return lines
    .map((line, i) => {
      const from = i === 0 ? line : line.replace(/^[ \t]+/, "");
      return i === last ? from : from.replace(/[ \t]+$/, "");
    })
    .filter((line) => line !== "")
    .join(" ");
}
