import { typeOf } from "../../../index.js";
import type { SyntaxNode } from "../../../index.js";
import { declaredType } from "../types.js";
import { wantedAt } from "./wanted.js";

/** The library's interfaces whose first type arguments are the types of what their method is given. */
const GIVEN: Readonly<Record<string, number>> = {
  Function: 1,
  Predicate: 1,
  Consumer: 1,
  ToIntFunction: 1,
  ToLongFunction: 1,
  ToDoubleFunction: 1,
  BiFunction: 2,
  BiConsumer: 2,
  BiPredicate: 2,
  ToIntBiFunction: 2,
};
/** The same type twice. */
const TWICE = ["Comparator", "BinaryOperator"];

/** Steps of a stream after which its items are of the same type. */
const SAME = [
  "filter",
  "sorted",
  "distinct",
  "limit",
  "skip",
  "peek",
  "parallel",
  "sequential",
  "unordered",
  "takeWhile",
  "dropWhile",
];
/** What a stream, a list or an Optional calls with one item. */
const WITH_ITEM =
  "filter map mapToInt mapToLong mapToDouble flatMap forEach forEachOrdered anyMatch allMatch noneMatch removeIf ifPresent takeWhile dropWhile peek".split(
    " ",
  );
const WITH_TWO = ["sort", "sorted", "min", "max"];

/** The types of what a lambda is given, where it says them, or the code around it does; undefined where nobody does. */
export function parameterTypes(lambda: SyntaxNode): readonly string[] | undefined {
  const written = lambda.child("parameters")?.parts.map((part) => part.child("type")?.text) ?? [];
  if (written.length > 0 && written.every((type) => type !== undefined && type !== "var"))
    return written as string[];
  const wanted = wantedAt(lambda);
  if (wanted.as === "declared") return givenTo(wanted.type);
  if (wanted.as !== "argument") return undefined;
  if (wanted.type !== undefined && !wanted.isGeneric) return givenTo(wanted.type);
  const item = itemsOf(wanted.call.child("object"));
  if (item === undefined || wanted.call.child("arguments")?.parts.length !== 1) return undefined;
  if (WITH_ITEM.includes(wanted.name)) return [item];
  return WITH_TWO.includes(wanted.name) ? [item, item] : undefined;
}

function givenTo(type: string): readonly string[] | undefined {
  const [, name = "", list = ""] = /^(?:[\w.]*\.)?(\w+)<(.*)>$/s.exec(type.trim()) ?? [];
  const types = split(list).map((one) => one.replace(/^\?\s*super\s+/, "").trim());
  if (types.some((one) => one.startsWith("?") || one === "")) return undefined;
  if (TWICE.includes(name)) return [types[0]!, types[0]!];
  const count = GIVEN[name];
  return count === undefined || types.length < count ? undefined : types.slice(0, count);
}

/** The parts between the commas of a list of types. */
function split(list: string): string[] {
  const result = [""];
  let depth = 0;
  for (const letter of list) {
    if (letter === "<") depth++;
    if (letter === ">") depth--;
    if (letter === "," && depth === 0) result.push("");
    else result[result.length - 1] += letter;
  }
  return result;
}

/** The type of the items of a collection, an Optional, or a stream of one. */
function itemsOf(object: SyntaxNode | undefined): string | undefined {
  let at = object;
  while (at?.is("method_invocation") && SAME.includes(at.child("name")!.text)) at = at.child("object");
  if (at?.is("method_invocation") && /^(stream|parallelStream)$/.test(at.child("name")!.text))
    at = at.child("object");
  const type = at && typeOf(at);
  if (!at || !type || !HOLDERS.includes(type.name)) return undefined;
  const [only, ...more] = split(/<(.*)>/s.exec(declaredType(at)?.text ?? "")?.[1] ?? "").map((one) =>
    one.trim(),
  );
  return only === undefined || only === "" || only.startsWith("?") || more.length > 0 ? undefined : only;
}

const HOLDERS =
  "List ArrayList LinkedList Collection Set HashSet TreeSet LinkedHashSet Queue Deque ArrayDeque Iterable Optional Stream SortedSet NavigableSet Vector".split(
    " ",
  );
