import { annotationOf, no, referencesAt, shortened, typeOf, unknown, yes } from "../../index.js";
import type { Answer, SyntaxNode } from "../../index.js";

/** The classes of the standard library that are maps, and the interfaces that are. */
const MAPS = [
  "Map",
  "HashMap",
  "TreeMap",
  "LinkedHashMap",
  "SortedMap",
  "NavigableMap",
  "ConcurrentMap",
  "ConcurrentHashMap",
  "EnumMap",
  "WeakHashMap",
  "IdentityHashMap",
  "Hashtable",
];

/** The type that is written beside the name of a variable or field, as a node. */
export function declaredType(expression: SyntaxNode): SyntaxNode | undefined {
  const leaf = expression.is("field_access")
    ? expression.child("object")?.is("this")
      ? expression.child("field")
      : undefined
    : expression;
  if (!leaf?.is("identifier")) return undefined;
  const to = referencesAt(leaf).find((reference) => reference.to)?.to;
  return to?.at.map((at) => annotationOf(at)).find((found) => found !== undefined);
}

/** The type arguments that a variable is declared with: `String`, `Integer` for `Map<String, Integer>`. */
export function typeArguments(expression: SyntaxNode): readonly string[] {
  const type = declaredType(expression);
  const list = type?.parts.find((part) => part.is("type_arguments"));
  return list?.parts.map((part) => part.text) ?? [];
}

/** Is an expression a map of the standard library? */
export function isMap(expression: SyntaxNode): Answer {
  const type = typeOf(expression);
  const name = shortened(expression.text);
  if (!type) return unknown(`the type of \`${name}\` is not known`, expression);
  const isOther =
    type.declared !== undefined || (type.module !== undefined && !type.module.startsWith("java.util"));
  return MAPS.includes(type.name) && !isOther
    ? yes(type.why, type.at)
    : no(`${type.why}, which is no map`, type.at);
}

/** Is an expression an `Optional`? */
export function isOptional(expression: SyntaxNode): Answer {
  const type = typeOf(expression);
  if (!type) return unknown(`the type of \`${shortened(expression.text)}\` is not known`, expression);
  const isOne =
    type.name === "Optional" && (type.module === undefined || type.module.startsWith("java.util"));
  return isOne ? yes(type.why, type.at) : no(`${type.why}, which is no Optional`, type.at);
}

const LITERAL_TYPES: Readonly<Record<string, string>> = {
  decimal_integer_literal: "Integer",
  string_literal: "String",
  true: "Boolean",
  false: "Boolean",
  character_literal: "Character",
  decimal_floating_point_literal: "Double",
};

/** Does a literal have just this type, so that it needs no widening that a method's parameter does not do? */
export function literalIs(value: SyntaxNode, type: string | undefined): Answer {
  let own = LITERAL_TYPES[value.kind];
  if (own === "Integer" && /[lL]$/.test(value.text)) own = "Long";
  if (own === "Double" && /[fF]$/.test(value.text)) own = "Float";
  if (type === undefined) return unknown(`the type of the values is not known`, value);
  if (value.is("null_literal")) return yes("null is of every type", value);
  if (own === undefined) return unknown(`\`${shortened(value.text)}\` must be a \`${type}\``, value);
  return own === type
    ? yes(`\`${value.text}\` is a \`${type}\``, value)
    : no(`\`${value.text}\` is no \`${type}\``, value);
}
