import {
  callOf,
  condition,
  copy,
  isOfTrait,
  need,
  no,
  shortened,
  text,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Condition, Match, Segment, Sifted, SyntaxNode } from "../../../core.js";
import type { ByMethods } from "../../family/by-methods.js";
import { onlyAsks } from "../../family/in-function.js";
import { receiver } from "../../family/item-function.js";
import { withoutParentheses } from "../../family/parentheses.js";
import { staysQuiet, usesOnlyFinal } from "../lambdas.js";
import { declaredType, typeArguments } from "../types.js";

export const Arrays = need("java.util", "Arrays");
const PRIMITIVE = /^(byte|short|char|int|long|float|double|boolean)$/;

/** The type of the items of an array; undefined for what is none. */
function arrayOf(items: SyntaxNode): string | undefined {
  const type = typeOf(withoutParentheses(items))?.name;
  return type?.endsWith("[]") ? type.slice(0, -2) : undefined;
}

/** Methods that give an array wherever the library has them. */
const GIVE_ARRAYS =
  /^(split|toArray|listFiles|getEnumConstants|getStackTrace|getInterfaces|getBounds|getUpperBounds|getLowerBounds|getActualTypeArguments|getTypeParameters|getParameterTypes|getExceptionTypes|get(Declared)?(Fields|Methods|Constructors|Classes|Annotations))$/;

/** Is what is walked an array, by its type, or as far as the name of the method that gives it says so? */
export function walksArray({ items }: Sifted): boolean {
  const node = withoutParentheses(items);
  return (
    arrayOf(node) !== undefined ||
    (typeOf(node) === undefined && GIVE_ARRAYS.test(callOf(node)?.method ?? ""))
  );
}

/** What streams the items: `hives.stream()`, `Arrays.stream(hives)`. */
function streamed(sifted: Sifted, match: Match): Segment[] {
  const { items } = sifted;
  if (!walksArray(sifted)) return [...receiver(items), text(".stream()")];
  const { start, end } = withoutParentheses(items);
  return [text(`${match.nameOf(Arrays)}.stream(`), copy(start, end), text(")")];
}

/** The methods of streams. */
export const STREAMS: ByMethods = {
  opposite: { "==": "!=", "!=": "==" },
  isContrary: () => true,
  hasPlainTruth: true,
  ahead: streamed,
  head: ({ item }) => `${item!.text} ->`,
  any: "anyMatch",
  all: "allMatch",
  none: "noneMatch",
  filter: "filter",
  map: "map",
};

/** Can what is walked be streamed, in the order in which the loop takes its items? */
function isStreamable({ items }: Sifted, takesNumbers: boolean): Answer {
  const node = withoutParentheses(items);
  const type = typeOf(node);
  const array = arrayOf(node);
  if (array === undefined && GIVE_ARRAYS.test(callOf(node)?.method ?? ""))
    return unknown(
      "type.not-known",
      `\`${shortened(node.text)}\` is an array by the name of the method alone`,
      node,
    );
  if (array === undefined)
    return isOfTrait(node, "collection", {
      what: "collection",
      methods: ["stream", "spliterator", "iterator", "forEach"],
    });
  if (!PRIMITIVE.test(array)) return yes("type.is", type!.why, type!.at);
  return takesNumbers && /^(int|long|double)$/.test(array)
    ? yes("type.is", type!.why, type!.at)
    : no("type.is", `${type!.why}, of which there is no stream of objects`, type!.at);
}

/** The type of the items, as far as it is declared. */
export function itemType(items: SyntaxNode): string | undefined {
  const node = withoutParentheses(items);
  const array = arrayOf(node);
  if (array !== undefined) return array;
  const declared = declaredType(node);
  const [only, ...more] = declared ? typeArguments(node) : [];
  return only === undefined || only.startsWith("?") || more.length > 0 ? undefined : only;
}

/** Does the loop take each item as what it is? A type that is written down may be another one: `int` for an `Integer`. */
function takesItemsAsTheyAre({ loop, items, item }: Sifted): Answer {
  const written = loop.child("type");
  const code = "type.same";
  if (!item?.is("identifier")) return no("form.fits", "the item has no plain name", item ?? loop);
  if (!written || written.text === "var") return yes(code, "the loop takes its items as they are");
  const known = itemType(items);
  if (known === written.text) return yes(code, `the items are \`${known}\``, written);
  if (PRIMITIVE.test(written.text))
    return no(code, `the loop takes an item out of its object as \`${written.text}\``, written);
  return unknown(
    code,
    `the items of \`${shortened(items.text)}\` could be of a narrower type than \`${written.text}\``,
    written,
  );
}

/** What must hold of a loop before its body becomes functions that a stream is handed. */
export function asStream(
  siftedIn: (match: Match) => Sifted,
  partsIn: (match: Match) => readonly SyntaxNode[],
  { takesNumbers = false } = {},
): Condition[] {
  return [
    condition("what is walked can be streamed", (match) => isStreamable(siftedIn(match), takesNumbers), {
      unknownIs: "possible",
    }),
    condition("the loop takes its items as they are", (match) => takesItemsAsTheyAre(siftedIn(match))),
    condition("the new functions change nothing", (match) => onlyAsks(partsIn(match))),
    condition("a lambda can use all that is used", (match) => usesOnlyFinal(partsIn(match))),
    condition("a lambda throws nothing that must be declared", (match) => staysQuiet(partsIn(match))),
  ];
}
