import type { SyntaxNode } from "../../../core.js";
import { attributesOf, attributeValue, canHoldText, contentOf, plainText, type Element } from "./markup.js";
import { NoState } from "./no-state.js";
import type { Sort } from "./values.js";
import type { Aspect } from "./element-use.js";
import type { Edit } from "../../../core.js";

/** What an element shows from now on: an aspect, and the code that gives it. */
export interface Showing {
  readonly aspect: Aspect;
  readonly code: string;
  /** The pieces of a text that is put together. */
  readonly pieces?: readonly (string | { readonly code: string })[] | undefined;
}

const PLAIN_TEXT = /^[^{}<>&\\\r\n]*$/;

/** The pieces of a template in which every value is a text or a number; undefined for anything else. */
export function piecesOf(
  value: SyntaxNode,
  codeOf: (node: SyntaxNode) => string,
  sortOf: (node: SyntaxNode) => Sort | undefined,
): Showing["pieces"] {
  if (value.is("call_expression") && value.child("function")!.text === "String") {
    const [given, more] = value.child("arguments")!.parts;
    return given && !more && sortOf(given) === "number" ? [{ code: codeOf(given) }] : undefined;
  }
  if (value.is("binary_expression")) return piecesOfSum(value, codeOf, sortOf);
  if (!value.is("template_string")) return undefined;
  const pieces: (string | { code: string })[] = [];
  let at = value.start + 1;
  for (const part of value.parts.filter((one) => one.is("template_substitution"))) {
    const inside = part.firstPart!;
    const sort = sortOf(inside);
    if (sort !== "text" && sort !== "number") return undefined;
    pieces.push(value.tree.text.slice(at, part.start), { code: codeOf(inside) });
    at = part.end;
  }
  pieces.push(value.tree.text.slice(at, value.end - 1));
  return pieces.every((piece) => typeof piece !== "string" || PLAIN_TEXT.test(piece)) ? pieces : undefined;
}

/** The pieces of texts and numbers that are added up, a text among the first two. */
function piecesOfSum(
  value: SyntaxNode,
  codeOf: (node: SyntaxNode) => string,
  sortOf: (node: SyntaxNode) => Sort | undefined,
): Showing["pieces"] {
  const parts: SyntaxNode[] = [];
  let sum = value;
  for (; sum.is("binary_expression") && sum.child("operator")!.text === "+"; sum = sum.child("left")!)
    parts.unshift(sum.child("right")!);
  parts.unshift(sum);
  const sorts = parts.map(sortOf);
  const isText =
    sorts.slice(0, 2).includes("text") && sorts.every((sort) => sort === "text" || sort === "number");
  if (!isText) return undefined;
  const pieces = parts.map((part) => (part.is("string") ? part.text.slice(1, -1) : { code: codeOf(part) }));
  return pieces.every((piece) => typeof piece !== "string" || PLAIN_TEXT.test(piece)) ? pieces : undefined;
}

/** The text between the tags of an element. */
export function contentEdit(element: Element, { code, pieces }: Showing): Edit {
  const range = contentOf(element) ?? { start: element.tag.end, end: element.tag.end };
  if (!canHoldText(element)) throw new NoState(element.tag, "the element has no place for text");
  const inside = element.node.parts.filter(({ start, end }) => range.start <= start && end <= range.end);
  const other = inside.find((one) => one.is(["jsx_element", "jsx_self_closing_element"]));
  if (other) throw new NoState(other, `the text takes the place of what is in the element \`${element.id}\``);
  const text = pieces?.map((piece) => (typeof piece === "string" ? piece : `{${piece.code}}`)).join("");
  const content = text ?? `{${code}}`;
  if (contentOf(element)) return { ...range, text: content };
  const { tree, start, end } = element.tag;
  const space = /\s*\/>$/.exec(tree.text.slice(start, end))![0];
  return { start: end - space.length, end, text: `>${content}</${element.name}>` };
}

/** The attributes that an element gets, and those of its own that they take the place of. */
export function attributeEdits(
  element: Element,
  showings: readonly Showing[],
  others: readonly string[],
  keepsId: boolean,
): Edit[] {
  const own = attributesOf(element.tag);
  const made = new Map<string, string>();
  for (const { aspect, code } of showings)
    if (aspect.is === "attribute") made.set(aspect.name, `${aspect.name}={${code}}`);
  const className = classCode(element, showings);
  if (className !== undefined) made.set("className", `className={${className}}`);
  const style = styleCode(element, showings);
  if (style !== undefined) made.set("style", `style={{ ${style} }}`);
  const edits: Edit[] = [];
  for (const [name, text] of made) {
    const known = own.get(name);
    if (!known) continue;
    const value = attributeValue(known);
    if (value && !value.is(["string", "true", "false"]))
      throw new NoState(known, `the markup works out \`${name}\` as well`);
    edits.push({ start: known.start, end: known.end, text });
    made.delete(name);
  }
  const ref = own.get("ref");
  if (ref && others.some((one) => one.startsWith("ref=")))
    throw new NoState(ref, "the element has a ref already");
  const added = [...made.values(), ...others];
  const id = own.get("id")!;
  const isSpread = element.tag.tree.lineAt(id.start) !== element.tag.line;
  const between = isSpread ? `\n${element.tag.tree.indentAt(id.start)}` : " ";
  const last = [...own.values()].at(-1)!;
  if (!keepsId && added.length > 0) edits.push({ start: id.start, end: id.end, text: added.join(between) });
  else if (!keepsId) edits.push(withoutAttribute(id));
  else if (added.length > 0) {
    const known = edits.find((one) => one.end === last.end);
    const text = added.map((one) => `${between}${one}`).join("");
    if (known) edits.splice(edits.indexOf(known), 1, { ...known, text: known.text + text });
    else edits.push({ start: last.end, end: last.end, text });
  }
  return edits;
}

function withoutAttribute({ tree, start, end }: SyntaxNode): Edit {
  const space = /\s*$/.exec(tree.text.slice(0, start))![0];
  return { start: start - space.length, end, text: "" };
}

function classCode(element: Element, showings: readonly Showing[]): string | undefined {
  const whole = showings.find(({ aspect }) => aspect.is === "classes");
  const single = showings.filter(({ aspect }) => aspect.is === "class");
  const [first, ...more] = single;
  if (!first) return whole?.code;
  if (whole || more.length > 0)
    throw new NoState(element.tag, `several classes of the element \`${element.id}\` change`);
  const attribute = attributesOf(element.tag).get("className");
  const text = attribute ? plainText(attributeValue(attribute)) : "";
  if (text === undefined)
    throw new NoState(attribute!, "the classes of the element are worked out in the markup");
  const { name } = first.aspect;
  const rest = text.split(/\s+/).filter((one) => one !== "" && one !== name);
  const code = /\s\?\s|=>/.test(first.code) ? `(${first.code})` : first.code;
  const off = rest.length > 0 ? `"${rest.join(" ")}"` : "undefined";
  return `${code} ? "${[...rest, name].join(" ")}" : ${off}`;
}

function styleCode(element: Element, showings: readonly Showing[]): string | undefined {
  const list = showings.filter(({ aspect }) => aspect.is === "style");
  if (list.length === 0) return undefined;
  const own = attributesOf(element.tag).get("style");
  if (own) throw new NoState(own, "the style of the element stands in the markup as well");
  return list.map(({ aspect, code }) => `${aspect.name}: ${code}`).join(", ");
}

/** The types that the document has for elements, where they are not `HTML…Element` by the tag's name. */
const TYPES: Readonly<Record<string, string>> = {
  a: "HTMLAnchorElement",
  h1: "HTMLHeadingElement",
  h2: "HTMLHeadingElement",
  h3: "HTMLHeadingElement",
  h4: "HTMLHeadingElement",
  img: "HTMLImageElement",
  li: "HTMLLIElement",
  ol: "HTMLOListElement",
  p: "HTMLParagraphElement",
  td: "HTMLTableCellElement",
  textarea: "HTMLTextAreaElement",
  th: "HTMLTableCellElement",
  tr: "HTMLTableRowElement",
  ul: "HTMLUListElement",
};
const BY_NAME =
  /^(audio|button|canvas|details|dialog|div|form|input|label|option|output|progress|select|span|table|video)$/;

/** The type of an element with this tag. */
export const elementType = (tag: string): string =>
  TYPES[tag] ?? (BY_NAME.test(tag) ? `HTML${tag[0]!.toUpperCase()}${tag.slice(1)}Element` : "HTMLElement");
