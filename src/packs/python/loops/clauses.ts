import { copy, indentUnit, no, text, yes } from "../../../core.js";
import type { Answer, Match, Segment, Sieve, Sifted, SyntaxNode } from "../../../core.js";
import { mostInLine } from "../../family/limits.js";
import { negated } from "../negated.js";

/** An expression that is a clause of its own; what may not stand bare there gets brackets. */
export function bracketed(node: SyntaxNode): Segment[] {
  const code = copy(node.start, node.end);
  return node.is(["conditional_expression", "lambda", "expression_list"])
    ? [text("("), code, text(")")]
    : [code];
}

/** The test of a sieve as it must come out. */
export const asked = ({ test, isTrue }: Sieve): Segment[] => (isTrue ? bracketed(test) : negated(test));

/** The tests of several sieves, which must all come out as they do. */
export function askedTogether(match: Match, sieves: readonly Sieve[]): Segment[] {
  const tests = sieves.map(asked);
  return tests.flatMap((test, i) => {
    const isLoose = tests.length > 1 && /\b(or|if|lambda)\b/.test(codeOf(match, test));
    const one = isLoose ? [text("("), ...test, text(")")] : test;
    return i === 0 ? one : [text(" and "), ...one];
  });
}

/** `for x in xs`. */
export function forClause({ item, items }: Sifted): Segment[] {
  return [text("for "), copy(item!.start, item!.end), text(" in "), ...bracketed(items)];
}

/** What is walked, where each item is taken as it is, and there is nothing to say about it; else the clauses. */
export function itselfOr({ item, items }: Sifted, value: string, clauses: readonly Segment[][]): Segment[][] {
  const isItself = clauses.length === 2 && item!.is("identifier") && item!.text === value;
  return isItself ? [[copy(items.start, items.end)]] : [...clauses];
}

/** The text of new code. */
export const codeOf = (match: Match, segments: readonly Segment[]): string =>
  segments.map((one) => ("text" in one ? one.text : match.tree.text.slice(one.start, one.end))).join("");

/** Clauses between brackets: on one line where that is short enough, else each on its own. */
export function laidOut(
  match: Match,
  [open, close]: readonly [string, string],
  clauses: readonly (readonly Segment[])[],
): Segment[] {
  const { tree, place } = match;
  const indent = tree.indentAt(match.found.start);
  const onOne = clauses.flatMap((part, i) => (i === 0 ? part : [text(" "), ...part]));
  // What stands ahead of the value in its line: `names = `.
  const ahead = tree.placeAt(place.start).column - 1;
  const length = ahead + open.length + codeOf(match, onOne).length + close.length;
  if (length <= mostInLine(match)) return [text(open), ...onOne, text(close)];
  const deeper = indent + indentUnit(tree, indent);
  const lines = clauses.map((part) => `${deeper}${codeOf(match, part)}`);
  return [text([open, ...lines, `${indent}${close}`].join("\n"))];
}

/** Parts that stand on several lines would have to be laid out anew. */
export function areOnLines(match: Match, clauses: readonly (readonly Segment[])[]): Answer {
  const long = clauses.find((part) => codeOf(match, part).includes("\n"));
  return long
    ? no("form.fits", "one of the parts stands on several lines", match.node)
    : yes("form.fits", "each part stands on one line");
}
