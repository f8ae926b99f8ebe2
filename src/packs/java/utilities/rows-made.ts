import { holes, isOfTrait, need, no, typeOf, unknown, yes } from "../../../core.js";
import type { Answer, Hole, Match, Need, Snippet, SyntaxNode } from "../../../core.js";
import { isLibraryName } from "../types.js";
import { codeOf, makes, type Row } from "./row.js";

export const { size, items, first, second, rest } = holes({
  size: "expression",
  items: "expression",
  first: "expression",
  second: "expression",
  rest: "arguments",
});
const { type, key, value } = holes({ type: "type", key: "type", value: "type" });

const inUtil = (name: string): Need => need("java.util", name);
const inConcurrent = (name: string): Need => need("java.util.concurrent", name);
const Arrays = inUtil("Arrays");
const ArrayList = inUtil("ArrayList");

const METHODS = ["iterator", "toArray"];

/** Is something a collection, and no text, number or array? */
export function isCollection(hole: Hole): (match: Match) => Answer {
  return (match) => {
    const node = match.the(hole);
    const answer = isOfTrait(node, "collection", { what: "collection", methods: METHODS });
    const type = answer.is === "unknown" ? typeOf(node) : undefined;
    return type && /\[\]$|^[a-z]+$/.test(type.name) ? no("type.is", type.why, type.at) : answer;
  };
}

const ONE = /^(String|Integer|Long|Short|Byte|Character|Double|Float|Boolean|Class)$/;

/** Is it one item or an array of them, which is taken as if its items were listed? */
function isListed(node: SyntaxNode): boolean {
  if (node.is(["string_literal", "class_literal"])) return true;
  const name = typeOf(node)?.name ?? "";
  return (
    /\[\]$|^[a-z]+$/.test(name) || (ONE.test(name) && isLibraryName(name, "java.lang", node).is === "yes")
  );
}

const isListedOrMany =
  (hole: Hole) =>
  (match: Match): Answer =>
    isListed(match.the(hole))
      ? yes("type.is", "an item or an array is given", match.the(hole))
      : isCollection(hole)(match);

/** The order in which a set is walked rests on how large it was made. */
const sameOrder = (match: Match): Answer =>
  unknown(
    "flow.order",
    "the new set may be walked in another order; neither library promises one",
    match.node,
  );

const listedOrMany = (match: Match): Snippet =>
  isListed(match.the(items)) ? codeOf(Arrays, ".asList(", items, ")") : codeOf(items);

const COLLECT = "com.google.common.collect";

/** Methods of a library that only spare the type arguments, which a diamond does as well. */
export const MADE: readonly Row[] = [
  ...makes(`${COLLECT}.Lists.newArrayList`, ArrayList, [type]),
  ...makes(`${COLLECT}.Lists.newArrayList`, ArrayList, [type], [items], {
    given: listedOrMany,
    takes: isListedOrMany(items),
  }),
  ...makes(`${COLLECT}.Lists.newArrayList`, ArrayList, [type], [first, second, rest], {
    given: codeOf(Arrays, ".asList(", [first, second, rest], ")"),
  }),
  ...makes(`${COLLECT}.Lists.newArrayListWithCapacity`, ArrayList, [type], [size]),
  ...makes(`${COLLECT}.Lists.newArrayListWithExpectedSize`, ArrayList, [type], [size]),
  ...makes(`${COLLECT}.Lists.newLinkedList`, inUtil("LinkedList"), [type]),
  ...makes(`${COLLECT}.Lists.newLinkedList`, inUtil("LinkedList"), [type], [items], {
    takes: isCollection(items),
  }),
  ...makes(`${COLLECT}.Lists.newCopyOnWriteArrayList`, inConcurrent("CopyOnWriteArrayList"), [type]),
  ...makes(`${COLLECT}.Sets.newHashSet`, inUtil("HashSet"), [type]),
  ...makes(`${COLLECT}.Sets.newHashSet`, inUtil("HashSet"), [type], [items], {
    given: listedOrMany,
    takes: isListedOrMany(items),
    doesSame: (match) =>
      isListed(match.the(items))
        ? sameOrder(match)
        : yes("flow.order", "the set is made of a collection, as before"),
  }),
  ...makes(`${COLLECT}.Sets.newHashSet`, inUtil("HashSet"), [type], [first, second, rest], {
    given: codeOf(Arrays, ".asList(", [first, second, rest], ")"),
    doesSame: sameOrder,
  }),
  ...makes(`${COLLECT}.Sets.newLinkedHashSet`, inUtil("LinkedHashSet"), [type]),
  ...makes(`${COLLECT}.Sets.newLinkedHashSet`, inUtil("LinkedHashSet"), [type], [items], {
    takes: isCollection(items),
  }),
  ...makes(`${COLLECT}.Sets.newTreeSet`, inUtil("TreeSet"), [type]),
  ...makes(`${COLLECT}.Sets.newCopyOnWriteArraySet`, inConcurrent("CopyOnWriteArraySet"), [type]),
  ...makes(`${COLLECT}.Maps.newHashMap`, inUtil("HashMap"), [key, value]),
  ...makes(`${COLLECT}.Maps.newHashMap`, inUtil("HashMap"), [key, value], [items]),
  ...makes(`${COLLECT}.Maps.newLinkedHashMap`, inUtil("LinkedHashMap"), [key, value]),
  ...makes(`${COLLECT}.Maps.newLinkedHashMap`, inUtil("LinkedHashMap"), [key, value], [items]),
  ...makes(`${COLLECT}.Maps.newTreeMap`, inUtil("TreeMap"), [key, value]),
  ...makes(`${COLLECT}.Maps.newIdentityHashMap`, inUtil("IdentityHashMap"), [key, value]),
  ...makes(`${COLLECT}.Maps.newConcurrentMap`, inConcurrent("ConcurrentHashMap"), [key, value]),
  ...makes(`${COLLECT}.Queues.newArrayDeque`, inUtil("ArrayDeque"), [type]),
  ...makes(`${COLLECT}.Queues.newPriorityQueue`, inUtil("PriorityQueue"), [type]),
  ...makes(`${COLLECT}.Queues.newConcurrentLinkedQueue`, inConcurrent("ConcurrentLinkedQueue"), [type]),
  ...makes(`${COLLECT}.Queues.newLinkedBlockingQueue`, inConcurrent("LinkedBlockingQueue"), [type]),
];
