import { typeOf } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { commaParts } from "../../family/comma-parts.js";
import { declaredType, isLibraryName } from "../types.js";
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

/** The names of the parameters of a lambda; undefined where they are written otherwise. */
export function namesOf(node: SyntaxNode): string[] | undefined {
  const list = node.child("parameters");
  if (list?.is("identifier")) return [list.text];
  const names = list?.parts.map((part) => (part.is("identifier") ? part.text : part.child("name")?.text));
  return names?.every((name) => name !== undefined) === true ? names : undefined;
}

/** The types of what a lambda is given, where it says them, or the code around it does; undefined where nobody does. */
export function parameterTypes(lambda: SyntaxNode): readonly string[] | undefined {
  const written = lambda.child("parameters")?.parts.map((part) => part.child("type")?.text) ?? [];
  if (written.length > 0 && written.every((type) => type !== undefined && type !== "var"))
    return written as string[];
  const wanted = wantedAt(lambda);
  if (wanted.as === "declared") return givenTo(wanted.type, lambda);
  if (wanted.as !== "argument") return undefined;
  if (wanted.type !== undefined && !wanted.isGeneric) return givenTo(wanted.type, lambda);
  const item = itemsOf(wanted.call.child("object"));
  if (item === undefined || wanted.call.child("arguments")?.parts.length !== 1) return undefined;
  if (WITH_ITEM.includes(wanted.name)) return [item];
  return WITH_TWO.includes(wanted.name) ? [item, item] : undefined;
}

function givenTo(type: string, at: SyntaxNode): readonly string[] | undefined {
  const [, name = "", list = ""] = /^(?:[\w.]*\.)?(\w+)<(.*)>$/s.exec(type.trim()) ?? [];
  const types = commaParts(list).map((one) => one.replace(/^\?\s*super\s+/, "").trim());
  if (types.some((one) => one.startsWith("?") || one === "")) return undefined;
  const module = name === "Comparator" ? "java.util" : "java.util.function";
  if (isLibraryName(name, module, at).is !== "yes") return undefined;
  if (TWICE.includes(name)) return [types[0]!, types[0]!];
  const count = GIVEN[name];
  return count === undefined || types.length < count ? undefined : types.slice(0, count);
}

/** What holds items of one type, with its package. */
const HOLDERS: Readonly<Record<string, string>> = {
  Iterable: "java.lang",
  Stream: "java.util.stream",
  ...Object.fromEntries(
    (
      "Optional Collection List ArrayList LinkedList Vector Set HashSet LinkedHashSet TreeSet SortedSet NavigableSet " +
      "Queue Deque ArrayDeque"
    )
      .split(" ")
      .map((name) => [name, "java.util"]),
  ),
};

/** The type of the items of a collection, an Optional, or a stream of one. */
function itemsOf(object: SyntaxNode | undefined): string | undefined {
  let at = object;
  while (at?.is("method_invocation") && SAME.includes(at.child("name")!.text)) at = at.child("object");
  if (at?.is("method_invocation") && /^(stream|parallelStream)$/.test(at.child("name")!.text))
    at = at.child("object");
  const type = at && typeOf(at);
  const module = type && HOLDERS[type.name];
  if (!at || module === undefined || isLibraryName(type!.name, module, at).is !== "yes") return undefined;
  const [only, ...more] = commaParts(/<(.*)>/s.exec(declaredType(at)?.text ?? "")?.[1] ?? "");
  return only === undefined || only === "" || only.startsWith("?") || more.length > 0 ? undefined : only;
}
