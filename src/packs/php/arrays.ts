import {
  changesOf,
  functionAround,
  referencesAt,
  shortened,
  typeOf,
  unknown,
  usesOf,
  yes,
} from "../../core.js";
import type { Answer, SyntaxNode } from "../../core.js";
import { isOfPhp } from "./values.js";

/** Functions that take an array by reference, and leave an array. */
const KEEP_ARRAYS =
  /^(?:array_(?:push|unshift|pop|shift|splice|walk)|[aku]?r?sort|u[ak]sort|shuffle|each|reset|next|prev|end)$/i;

/** Is the variable an array after this change, if it was one before? */
function keepsArray(changed: SyntaxNode): boolean {
  const { parent } = changed;
  if (parent?.is("subscript_expression")) return true;
  if (parent?.is("assignment_expression") && parent.child("left")?.same(changed))
    return typeOf(parent.child("right")!)?.name === "array";
  const name = parent?.is("arguments")
    ? parent.parent?.child("function")?.text.replace(/^\\/, "")
    : undefined;
  return name !== undefined && KEEP_ARRAYS.test(name) && isOfPhp(name, changed).is === "yes";
}

/** Is a variable an array from the start: by its type, or by the first thing that the function does with it? */
function isArrayFirst(node: SyntaxNode, declared: SyntaxNode, first: SyntaxNode | undefined): boolean {
  const parameter = declared.closest(["simple_parameter"]);
  // A default of null makes the type one that takes null.
  const isNull = /^null$/i.test(parameter?.child("default_value")?.text ?? "");
  if (parameter) return parameter.child("type")?.text.toLowerCase() === "array" && !isNull;
  const statement = first?.closest(["expression_statement"]);
  const isAhead = statement?.parent?.same(functionAround(node)?.child("body") ?? node) === true;
  return isAhead && first!.end < node.start;
}

/** Is a local variable an array first, in any case, and given nothing but arrays later? */
function isAlwaysArray(node: SyntaxNode): boolean {
  const to = node.is("variable_name")
    ? referencesAt(node.firstPart!).find((one) => !one.member)?.to
    : undefined;
  if (!to || usesOf(to).doubts.length > 0) return false;
  const isOwn = (at: SyntaxNode): boolean => at.closest(["simple_parameter"]) === undefined;
  const changes = changesOf(to).flatMap(({ node: at }) =>
    isOwn(at) ? [at.closest(["variable_name"]) ?? at] : [],
  );
  return isArrayFirst(node, to.at[0]!, changes[0]) && changes.every(keepsArray);
}

/** Is something an array? `otherwise` says what that matters for, of what is not known to be one. */
export function isArray(node: SyntaxNode, otherwise: (shown: string) => string): Answer {
  if (isAlwaysArray(node)) return yes("type.is", `\`${node.text}\` is only ever given arrays`, node);
  const type = typeOf(node);
  const declared = type?.at?.closest([
    "simple_parameter",
    "property_promotion_parameter",
    "property_declaration",
  ]);
  return type?.name === "array" && !/\?\s*array\b|\bnull\b/i.test(declared?.text ?? "")
    ? yes("type.is", type.why, type.at)
    : unknown("type.is", otherwise(shortened(node.text)), node);
}
