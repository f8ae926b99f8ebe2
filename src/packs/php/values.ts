import { shortened, typeOf, unknown, yes } from "../../index.js";
import type { Answer, Match, SyntaxNode } from "../../index.js";

/** Types of PHP whose values are true whenever they are there. */
const NOT_OBJECTS = [
  "int",
  "float",
  "string",
  "bool",
  "array",
  "mixed",
  "iterable",
  "callable",
  "object|null",
];

/** Is what is written a variable, and not a property or an item of something? */
export function isVariable(node: SyntaxNode): boolean {
  return node.is(["variable_name", "scoped_property_access_expression"]);
}

/** Do `isset` and `??` say the same of this? Objects that answer for their items and properties may not. */
export function asksNoObject(node: SyntaxNode): Answer {
  if (isVariable(node)) return yes(`\`${node.text}\` is a variable`, node);
  const base = node.parts[0];
  const type = base && typeOf(base);
  if (node.is("subscript_expression") && type?.name === "array") return yes(type.why, type.at);
  const what = node.is("subscript_expression") ? "an object with items of its own" : "a magic property";
  return unknown(`\`${shortened(node.text)}\` could be ${what}, which answers \`isset\` itself`, node);
}

/** What counts as true or false only by being there or not. */
export function isObjectOrMissing(match: Match, node: SyntaxNode): Answer {
  const type = typeOf(node);
  const name = shortened(node.text);
  if (type && !NOT_OBJECTS.includes(type.name.toLowerCase())) return yes(type.why, type.at);
  return unknown(`\`${name}\` could be false, 0 or "", for which the old code stopped`, node);
}
