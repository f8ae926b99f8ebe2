import {
  canBeMissingHere,
  classesNamed,
  condition,
  givesSomething,
  isCreation,
  madeInSight,
  no,
  referencesAt,
  shortened,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Condition, Match, Sifted, SyntaxNode } from "../../../core.js";
import type { ByMethods } from "../../family/by-methods.js";
import { onlyAsks, runsAlone } from "../../family/in-function.js";
import { receiver } from "../../family/item-function.js";
import { withoutParentheses } from "../../family/parentheses.js";
import { isOfNamespace } from "../system.js";
import { comparesPlainly } from "../values.js";

/** The methods of `System.Linq`. */
export const LINQ: ByMethods = {
  opposite: { "==": "!=", "!=": "==" },
  isContrary: (comparison) =>
    isLength(comparison.firstPart!) || comparesPlainly(comparison.firstPart!).is === "yes",
  ahead: ({ items }) => receiver(items),
  head: ({ item }) => `${item!.text} =>`,
  any: "Any",
  all: "All",
  filter: "Where",
  map: "Select",
};

const COLLECTIONS =
  /^(I?(List|Collection|Enumerable|ReadOnlyList|ReadOnlyCollection|Set)|HashSet|SortedSet|Queue|Stack|LinkedList)$/;

const ARGUMENT = /<([^<>]+(?:<[^<>]*>)?)>`?$/;

/** The type of the items that something holds, as it is written; undefined where it is not known. */
export function itemType(items: SyntaxNode): string | undefined {
  const type = typeOf(withoutParentheses(items));
  if (!type || classesNamed(items.tree, type.name).classes.length > 0) return undefined;
  if (type.name === "string") return "char";
  if (type.name.endsWith("[]")) return type.name.slice(0, -2);
  if (/^(Sorted|I|IReadOnly|Concurrent)?Dictionary$/.test(type.name)) return "KeyValuePair";
  if (!COLLECTIONS.test(type.name)) return undefined;
  // Where it is made, its class is named there, and where it is declared, in the declaration.
  const made = type.at.closest(["object_creation_expression"])?.child("type")?.text ?? "";
  return ARGUMENT.exec(type.why)?.[1] ?? /^[\w.]+<(.+)>$/.exec(made)?.[1];
}

/** Is it the number of the items of a text, an array or a collection? */
function isLength(node: SyntaxNode): boolean {
  const object = node.is("member_access_expression") ? node.firstPart : undefined;
  const isNamed = /^(Length|Count)$/.test(node.child("name")?.text ?? "");
  return object !== undefined && isNamed && itemType(object) !== undefined;
}

/** Is a class of collections the one of the platform? */
function isOfPlatform({ items }: Sifted): Answer {
  const type = typeOf(withoutParentheses(items))!;
  return type.name === "string" || type.name.endsWith("[]")
    ? yes("name.library", "it is of the language")
    : isOfNamespace(type.name, "System.Collections.Generic", type.at);
}

/** Has what is walked the methods, which are called for each item as the loop takes it? */
function isCollection({ items }: Sifted): Answer {
  const node = withoutParentheses(items);
  const shown = shortened(node.text);
  const type = typeOf(node);
  if (itemType(node) !== undefined) return yes("type.is", type!.why, type!.at);
  if (type && /^(ArrayList|Hashtable|Span|ReadOnlySpan)$/.test(type.name))
    return no("type.is", `${type.why}, which has no such methods`, type.at);
  if (type && /^(IQueryable|DbSet|ParallelQuery)$/.test(type.name))
    return no("type.is", `${type.why}, whose methods do something else with a function`, type.at);
  return unknown(
    "type.not-known",
    `\`${shown}\` could have no such methods, or hand them to a data base as an expression`,
    node,
  );
}

/** A loop over null throws another exception than a method of LINQ that is handed null. */
function isThere({ items }: Sifted): Answer {
  const node = withoutParentheses(items);
  const code = "value.null";
  const shown = shortened(node.text);
  if (isCreation(node) || givesSomething(node)) return yes(code, `\`${shown}\` is there`, node);
  const missing = node.isLeaf ? canBeMissingHere(node) : undefined;
  if (missing?.is === "no") return yes(code, missing.evidence.says, missing.evidence);
  const [made] = madeInSight(node) ?? [];
  return made
    ? yes(code, `\`${shown}\` is only given what is made here`, made.at)
    : unknown(code, `\`${shown}\` could be null, for which the new code throws another exception`, node);
}

/** Does the loop take each item as what it is? A type that is written down may be another one, to which it is converted. */
function takesItemsAsTheyAre({ loop, items, item }: Sifted): Answer {
  const written = loop.child("type");
  const code = "type.same";
  if (!item?.is("identifier")) return no("form.fits", "the loop takes its items apart", item ?? loop);
  if (!written || written.is("implicit_type")) return yes(code, "the loop takes its items as they are");
  const known = itemType(items);
  if (known === undefined)
    return unknown(code, `the loop could convert each item to \`${written.text}\``, written);
  return known === written.text
    ? yes(code, `the items are \`${known}\``, written)
    : no(code, `the loop converts each \`${known}\` to \`${written.text}\``, written);
}

/** A function can take along no parameter that stands for a variable of the caller, and in a struct nothing of the object. */
function canBeTakenAlong(parts: readonly SyntaxNode[]): Answer {
  for (const part of parts)
    for (const leaf of part.descendants()) {
      const isThis = leaf.is("this");
      const to = leaf.is("identifier") ? referencesAt(leaf).find(({ member }) => !member)?.to : undefined;
      const isOfObject = isThis || (to !== undefined && /^(field|property|method)$/.test(to.as));
      if (
        isOfObject &&
        leaf
          .closest(["class_declaration", "struct_declaration", "record_declaration"])
          ?.is("struct_declaration")
      )
        return no("name.scope", `\`${leaf.text}\` is of a struct, which a function cannot take along`, leaf);
      const declared = to?.as === "parameter" ? to.at[0]!.parent : undefined;
      if (declared?.is("parameter") && /^(ref|out|in)\b/.test(declared.text))
        return no(
          "name.scope",
          `\`${leaf.text}\` is a \`${declared.text.split(" ")[0]}\` parameter, which a function cannot take along`,
          leaf,
        );
      const type = to && !part.holds(to.at[0]!) ? typeOf(leaf) : undefined;
      if (type && /^(ReadOnly)?Span$/.test(type.name))
        return no("name.scope", `${type.why}, which a function cannot take along`, leaf);
    }
  return yes("name.scope", "a function can take along all that is used");
}

/** What must hold of a loop before its body becomes functions that methods are handed. */
export function asMethods(
  siftedIn: (match: Match) => Sifted,
  partsIn: (match: Match) => readonly SyntaxNode[],
): Condition[] {
  return [
    condition("what is walked is a collection", (match) => isCollection(siftedIn(match)), {
      unknownIs: "possible",
    }),
    condition("its class is the one of the platform", (match) => isOfPlatform(siftedIn(match)), {
      when: (match) => itemType(siftedIn(match).items) !== undefined,
    }),
    condition("what is walked is there", (match) => isThere(siftedIn(match))),
    condition("the loop takes its items as they are", (match) => takesItemsAsTheyAre(siftedIn(match))),
    condition("the new functions change nothing", (match) => onlyAsks(partsIn(match))),
    condition("a function can do it", (match) => runsAlone(partsIn(match))),
    condition("a function can take along what is used", (match) => canBeTakenAlong(partsIn(match))),
  ];
}
