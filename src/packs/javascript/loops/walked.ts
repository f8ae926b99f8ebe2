import {
  changesOf,
  condition,
  functionAround,
  isUsedAfter,
  no,
  referencesAt,
  referencesOf,
  sameCode,
  shortened,
  unknown,
  unnegated,
  yes,
} from "../../../core.js";
import type { Answer, Condition, Match, Sifted, SyntaxNode } from "../../../core.js";
import { onlyAsks, runsAlone, staysAlike } from "../../family/in-function.js";
import { receiver } from "../../family/item-function.js";
import type { ByMethods } from "../../family/by-methods.js";
import { withoutParentheses } from "../../family/parentheses.js";
import { isFilled } from "../filled.js";
import { kindOf } from "../kinds.js";

/** The methods of arrays. */
export const METHODS: ByMethods = {
  opposite: { "===": "!==", "!==": "===", "==": "!=", "!=": "==" },
  isContrary: () => true,
  ahead: (sifted) => receiver(walkedBy(sifted).items),
  head: (sifted, parts) => headOf(walkedBy(sifted), parts),
  any: "some",
  all: "every",
  filter: "filter",
  map: "map",
};

/** What is walked, and what a function of an item of it takes. */
interface Walked {
  readonly items: SyntaxNode;
  /** The item as the loop takes it: a name, or a pattern. */
  readonly item: SyntaxNode;
  /** The parameters of the function: the item, and perhaps its position and the array. */
  readonly parameters: readonly SyntaxNode[];
}

/** What is walked, its positions too where the loop takes both: `for (const [i, jar] of jars.entries())`. */
export function walkedBy({ items, item, fn }: Sifted): Walked {
  if (fn) return { items, item: item!, parameters: fn.child("parameters")?.parts ?? [item!] };
  const call = withoutParentheses(items);
  const read = call.is("call_expression") && /\(\s*\)$/.test(call.text) ? call.child("function") : undefined;
  const [index, named, ...more] = item!.is("array_pattern") ? item!.parts : [];
  const isBoth = index?.is("identifier") && named && !named.is("rest_pattern") && more.length === 0;
  if (index && isBoth && read?.is("member_expression") && /[^?]\.entries$/.test(read.text))
    return { items: read.child("object")!, item: named, parameters: [named, index] };
  return { items, item: item!, parameters: [item!] };
}

/** Does code name a parameter, in whatever way? One that is taken apart counts as named. */
export function isNamedIn(parameter: SyntaxNode, parts: readonly SyntaxNode[]): boolean {
  const name = parameter.child("pattern") ?? parameter;
  return (
    !name.is("identifier") ||
    parts.some((part) => [...part.descendants()].some((node) => node.isLeaf && node.text === name.text))
  );
}

/** What stands ahead of the body of a function of an item, without the parameters at the end that it does not use. */
export function headOf({ parameters }: Pick<Walked, "parameters">, parts: readonly SyntaxNode[]): string {
  const last = parameters.findLastIndex((one, i) => i === 0 || isNamedIn(one, parts));
  return `(${parameters
    .slice(0, last + 1)
    .map(({ text }) => text)
    .join(", ")}) =>`;
}

/** Is what is walked an array, and nothing else that can be walked? */
export function isArray(match: Match, sifted: Sifted): Answer {
  const node = withoutParentheses(walkedBy(sifted).items);
  const shown = shortened(node.text);
  const other = otherThanArray(node);
  if (other !== undefined) return no("type.is", `\`${shown}\` gives ${other}, which is not an array`, node);
  const known = kindOf(match, node);
  const isByPosition = !sifted.fn && walkedBy(sifted).parameters.length > 1;
  if (!known && isByPosition)
    return no("type.not-known", `\`${shown}\` could be a map, whose entries have keys`, node);
  if (!known)
    return unknown(
      "type.not-known",
      `\`${shown}\` could be something else that can be walked: a set, a map, a text`,
      node,
    );
  if (known.owner !== "Array") return no("type.is", `${known.why}, which is not an array`, known.at);
  return known.byUse
    ? unknown("type.not-known", `the use of \`${shown}\` alone says what it is`, known.at)
    : yes("type.is", known.why, known.at);
}

/** What a method gives by its name, if that can be walked and is no array. */
function otherThanArray(node: SyntaxNode): string | undefined {
  const read = node.is("call_expression") ? node.child("function") : undefined;
  const name = read?.is("member_expression") ? read.child("property")!.text : "";
  if (isListOfNodes(node)) return "a list of nodes";
  const isOfObject = read?.child("object")?.text === "Object";
  const takesNothing = node.child("arguments")?.parts.length === 0;
  return /^(keys|values|entries)$/.test(name) && takesNothing && !isOfObject ? "an iterator" : undefined;
}

/** Does a call ask a document for several of its nodes? */
export const isListOfNodes = (node: SyntaxNode): boolean =>
  node.is("call_expression") &&
  /\.(querySelectorAll|getElementsBy\w+)$/.test(node.child("function")?.text ?? "");

/** Is something read of an item before anything else is done, so that there must be one? */
export function isReadFirst(sifted: Sifted, first: SyntaxNode): boolean {
  const { item } = walkedBy(sifted);
  if (!item.is("identifier")) return !item.is("assignment_pattern");
  const read = firstRead(first);
  const isItem = read.text === item.text && read.field === "object" && read.parent?.is("member_expression");
  return isItem === true && !read.parent!.child("optional_chain");
}

/** Places that were never filled are undefined to a loop, and left out by the methods of arrays. */
function hasNoGaps(sifted: Sifted, first: SyntaxNode): Answer {
  return isReadFirst(sifted, first)
    ? yes("value.kind", "something is read of each item first, so each is there", first)
    : isFilled(withoutParentheses(walkedBy(sifted).items));
}

/** What is evaluated first in an expression, and always. */
function firstRead(expression: SyntaxNode): SyntaxNode {
  let at = unnegated(expression).test;
  while (at.firstPart && !at.is(at.tree.language.functions)) at = at.firstPart;
  return at;
}

/** The names of the loop are seen by nothing behind it, and by no function that is made in it. */
export function endsNames({ loop, item, fn }: Sifted): Answer {
  const code = "resource.used-after";
  if (fn) return yes(code, "the names of the function are seen in it only");
  const word = loop.child("kind")?.text;
  if (word === "const" || word === "let") return yes(code, "the names of the loop are seen in it only");
  for (const leaf of item ? [item, ...item.descendants()] : []) {
    const to = leaf.isLeaf ? referencesAt(leaf).find(({ member }) => !member)?.to : undefined;
    if (!leaf.is(["identifier", "shorthand_property_identifier_pattern"])) continue;
    if (!to) return unknown(code, `what declares \`${leaf.text}\` is not known`, leaf);
    const used = isUsedAfter(to, loop);
    if (used.is === "yes") return no(code, used.evidence.says, used.evidence);
    if (used.is === "unknown") return used;
    const other = to.at.find((at) => !loop.holds(at)) ?? referencesOf(to).find((one) => one.captured)?.node;
    if (other) return no(code, `\`${leaf.text}\` is seen outside of this loop`, other);
  }
  return yes(code, "the names of the loop are not used behind it");
}

/**
 * In TypeScript a function forgets what was found out about the type of a member, or of a variable that is written later; so
 * nothing may have been found out ahead of the loop.
 */
export function keepsTypes({ loop }: Sifted, parts: readonly SyntaxNode[]): Answer {
  const code = "type.not-known";
  const reads = parts.flatMap((part) => [...part.descendants()]).filter(isOuterRead);
  const around = functionAround(loop) ?? loop.tree.root;
  const ahead = [...around.descendants()].filter(
    (one) => one.start < loop.start && one.is("member_expression"),
  );
  for (const read of reads) {
    const root = firstRead(read);
    const to = referencesAt(root).find(({ member }) => !member)?.to;
    if (to && loop.holds(to.at[0]!)) continue;
    const written =
      to && to.as !== "import"
        ? changesOf(to).find(({ node }) => !to.at.some((at) => at.same(node)))
        : undefined;
    const paths = [...root.ancestors()].filter((one) => one.is("member_expression") && read.holds(one));
    const asked = paths.find((path) => ahead.some((one) => sameCode(one, path)));
    const open = written?.node ?? asked;
    if (open)
      return unknown(
        code,
        `the type of \`${shortened((asked ?? root).text)}\` could be wider in a function than it is here`,
        open,
      );
  }
  return yes(code, "no type is narrower here than in a function");
}

const isOuterRead = (node: SyntaxNode): boolean =>
  node.is(["identifier", "this", "member_expression"]) &&
  !(node.parent?.is("member_expression") && node.parent.firstPart!.same(node));

/**
 * TypeScript works out what a function without a type gives from what it returns, and cannot where that calls the function in
 * one that is handed on. A loop with `return` only has nothing to work out.
 */
export function givesWhatIsKnown({ loop }: Sifted, parts: readonly SyntaxNode[]): Answer {
  const code = "type.not-known";
  const around = functionAround(loop);
  const name = around && (around.child("name") ?? around.parent?.child("name"));
  if (!name || around.child("return_type") || around.parent?.child("type"))
    return yes(code, "the type of what the function gives is not worked out from this", around);
  const own = parts.flatMap((part) => part.mentions(name.text))[0];
  return own
    ? no(code, `what \`${name.text}\` gives would be worked out from itself, for want of a type`, own)
    : yes(code, `\`${name.text}\` does not call itself here`, name);
}

/**
 * What must hold of a loop before its body becomes a function that an array is handed; `visitsGaps` where the method takes
 * places that were never filled for undefined, as a loop does.
 */
export function asMethod(
  siftedIn: (match: Match) => Sifted,
  partsIn: (match: Match) => readonly SyntaxNode[],
  { visitsGaps = false } = {},
): Condition[] {
  return [
    condition("what is walked is an array", (match) => isArray(match, siftedIn(match)), {
      unknownIs: "possible",
    }),
    condition("all of its places are filled", (match) => hasNoGaps(siftedIn(match), partsIn(match)[0]!), {
      when: (match) => !visitsGaps && !siftedIn(match).fn,
    }),
    condition("what is walked keeps its items", (match) => staysAlike(siftedIn(match), partsIn(match)), {
      when: (match) => !siftedIn(match).fn,
    }),
    condition("the names of the loop are not used afterwards", (match) => endsNames(siftedIn(match))),
    condition("the new functions change nothing", (match) => onlyAsks(partsIn(match))),
    condition("a function can do it", (match) => runsAlone(partsIn(match))),
    condition("types stay as narrow as they are", (match) => keepsTypes(siftedIn(match), partsIn(match)), {
      when: ({ tree }) => tree.language.id !== "javascript",
    }),
    condition(
      "the function calls itself nowhere here",
      (match) => givesWhatIsKnown(siftedIn(match), partsIn(match)),
      {
        when: ({ tree }) => tree.language.id !== "javascript",
      },
    ),
  ];
}
