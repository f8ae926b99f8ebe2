import { no, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, SyntaxNode } from "../../../core.js";
import type { Field } from "./f-string.js";

/** One `%…` of an old format, or the text between two of them. */
export interface Directive {
  readonly key: string | undefined;
  readonly flags: string;
  readonly width: string;
  readonly precision: string;
  readonly letter: string;
}

const DIRECTIVE = /%(?:\(([^)]*)\))?([#0\- +]*)(\*|\d+)?(?:\.(\*|\d+))?[hlL]?([a-zA-Z%])/g;

/** The text and the directives of a format, in order; undefined where a `%` begins none that is understood. */
export function directivesIn(content: string): (string | Directive)[] | undefined {
  const parts: (string | Directive)[] = [];
  let at = 0;
  for (const found of content.matchAll(DIRECTIVE)) {
    const [all, key, flags = "", width = "", precision = "", letter = ""] = found;
    const between = content.slice(at, found.index);
    if (between.includes("%")) return undefined;
    parts.push(between);
    at = found.index + all.length;
    if (letter === "%" && all === "%%") parts.push("%");
    else if ("diouxXeEfFgGrsa".includes(letter)) parts.push({ key, flags, width, precision, letter });
    else return undefined;
  }
  const rest = content.slice(at);
  if (rest.includes("%")) return undefined;
  return [...parts, rest];
}

/** Is a number divided, which gives a fraction, and what is worked out of it one as well? */
function isQuotient(value: SyntaxNode): boolean {
  if (value.is("parenthesized_expression")) return isQuotient(value.firstPart!);
  if (!value.is("binary_operator")) return false;
  const operator = value.child("operator")?.text;
  if (operator === "/") return true;
  return ["+", "-", "*", "**"].includes(operator ?? "") && value.parts.some(isQuotient);
}

/** A handler that an error in this code would reach within its function. */
function handlerAround(node: SyntaxNode): SyntaxNode | undefined {
  for (const above of node.ancestors()) {
    if (above.is(["function_definition", "lambda"])) return undefined;
    const handler = above.is("try_statement")
      ? above.parts.find((part) => part.is("except_clause"))
      : undefined;
    if (handler && above.child("body")?.holds(node)) return handler;
  }
  return undefined;
}

/** What a directive becomes, with an answer to whether it gives the same text. Undefined where no field can say it. */
export function fieldFor(
  directive: Directive,
  value: SyntaxNode,
): { field: Field; answer: Answer } | undefined {
  const { flags, width, precision, letter } = directive;
  if (width === "*" || precision === "*") return undefined;
  const type = typeOf(value);
  const name = isQuotient(value)
    ? "float"
    : type && type.module === undefined && !type.declared
      ? type.name
      : undefined;
  const same = (says = `\`${value.text}\` gives the same text`): Answer => yes("value.result", says, value);
  const open = (says: string): Answer => unknown("value.result", `\`${value.text}\` could be ${says}`, value);
  if ("rsa".includes(letter)) {
    if (/[#0+ ]/.test(flags)) return undefined;
    const layout = `${width === "" ? "" : flags.includes("-") ? "<" : ">"}${width}${precision === "" ? "" : `.${precision}`}`;
    const spec = layout === "" ? {} : { spec: [layout] };
    if (letter !== "s") return { field: { value, conversion: letter as "r" | "a", ...spec }, answer: same() };
    const isText = name === "str";
    const isPlain = isText || (name !== undefined && ["int", "float"].includes(name));
    if (layout === "")
      return {
        field: { value },
        answer: isPlain || name === "bool" ? same() : open("of a class with a `__format__` of its own"),
      };
    return { field: { value, ...(isText ? {} : { conversion: "s" }), ...spec }, answer: same() };
  }
  if (flags.includes("-") && flags.includes("0")) return undefined;
  const handler = name === undefined ? handlerAround(value) : undefined;
  if (handler) {
    const says = `where \`${value.text}\` is no number, \`%\` raises a TypeError and an f-string a ValueError, which a handler can tell apart`;
    return { field: { value }, answer: no("flow.throws", says, handler) };
  }
  const sign = flags.includes("+") ? "+" : flags.includes(" ") ? " " : "";
  const layout = [
    flags.includes("-") && width !== "" ? "<" : "",
    sign,
    flags.includes("#") ? "#" : "",
    flags.includes("0") && width !== "" ? "0" : "",
    width,
    precision === "" ? "" : `.${precision}`,
  ].join("");
  if ("diu".includes(letter)) {
    if (precision !== "" || flags.includes("#") || name === "float") return undefined;
    if (name === "int" && layout === "") return { field: { value }, answer: same() };
    const answer =
      name === "int" || name === "bool" ? same() : open("a float, which `%d` cuts off and `:d` refuses");
    return { field: { value, spec: [`${layout}d`] }, answer };
  }
  if ("xXo".includes(letter)) {
    if (precision !== "") return undefined;
    const answer = name === "int" ? same() : open("of a class that only turns into a number");
    return { field: { value, spec: [`${layout}${letter}`] }, answer };
  }
  const answer =
    name === "int" || name === "float"
      ? same()
      : open("of a class that lays numbers out in its own way, as decimals do");
  return { field: { value, spec: [`${layout}${letter}`] }, answer };
}
