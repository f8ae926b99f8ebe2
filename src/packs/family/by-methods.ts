import { copy, no, referencesAt, text, yes } from "../../core.js";
import type { Answer, Match, Segment, Sifted, SyntaxNode } from "../../core.js";
import { called, contraryOf, together, type FunctionCall, type Opposites } from "./item-function.js";
import { withoutParentheses } from "./parentheses.js";

/** How a language asks what holds items for some of them, by methods that are handed a function of an item. */
export interface ByMethods extends Opposites {
  /** What the methods are called on. */
  ahead(sifted: Sifted, match: Match): Segment[];
  /** What stands ahead of the body of a function that these parts of the loop make up. */
  head(sifted: Sifted, parts: readonly SyntaxNode[]): string;
  readonly any: string;
  readonly all: string;
  /** The method for no item at all, where there is one. */
  readonly none?: string;
  readonly filter: string;
  readonly map: string;
}

/** A loop that asks whether items pass a test, as one call. */
export function askedByMethod(match: Match, by: ByMethods): Segment[] {
  const { flagged: found } = match;
  const { sieves, isFound } = found;
  const head = by.head(
    found,
    sieves.map(({ test }) => test),
  );
  const ahead = by.ahead(found, match);
  const contrary = isFound ? undefined : contraryOf(sieves, by);
  if (contrary) return called(match, ahead, { open: `.${by.all}(`, head, code: contrary });
  const code = together(sieves, by);
  if (isFound) return called(match, ahead, { open: `.${by.any}(`, head, code });
  return by.none === undefined
    ? called(match, [text("!"), ...ahead], { open: `.${by.any}(`, head, code })
    : called(match, ahead, { open: `.${by.none}(`, head, code });
}

/** The calls that leave out the items that fail the tests, and make of the others what is made of them. */
export function sievedBy(sifted: Sifted, value: SyntaxNode | undefined, by: ByMethods): FunctionCall[] {
  const { sieves } = sifted;
  const tests = sieves.map(({ test }) => test);
  const made = value && withoutParentheses(value);
  return [
    ...(sieves.length > 0
      ? [{ open: `.${by.filter}(`, head: by.head(sifted, tests), code: together(sieves, by) }]
      : []),
    ...(made
      ? [{ open: `.${by.map}(`, head: by.head(sifted, [made]), code: [copy(made.start, made.end)] }]
      : []),
  ];
}

/** Is a value the item itself? */
export const isItem = ({ item }: Sifted, value: SyntaxNode): boolean =>
  item?.text === withoutParentheses(value).text;

/** The value is made in another function than the tests, where the names that a test declares are not known. */
export function usesNoNameOf({ sieves }: Sifted, value: SyntaxNode): Answer {
  for (const leaf of value.descendants()) {
    const to = leaf.isLeaf && leaf.named ? referencesAt(leaf).find(({ member }) => !member)?.to : undefined;
    if (to?.at.some((at) => sieves.some(({ test }) => test.holds(at))))
      return no("name.scope", `\`${leaf.text}\` is declared by the test, and not known outside of it`, leaf);
  }
  return yes("name.scope", "the value uses no name that a test declares");
}
