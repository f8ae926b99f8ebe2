import {
  calledFromLibrary,
  copy,
  indentUnit,
  isBuiltin,
  isSeenElsewhere,
  isUsedAfter,
  no,
  referencesAt,
  shortened,
  text,
  unknown,
  weakest,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, Sieve, SyntaxNode } from "../../../core.js";
import { mostInLine } from "../../family/limits.js";
import { isContrary, negated } from "../negated.js";

/** What a loop walks, what it calls an item, and what it asks of it. */
export interface Walked {
  readonly loop: SyntaxNode;
  readonly items: SyntaxNode;
  readonly item: SyntaxNode | undefined;
  readonly sieves: readonly Sieve[];
}

const namesIn = (node: SyntaxNode): SyntaxNode[] =>
  [...node.descendants()].filter((one) => one.is("identifier"));

/** The names of the loop end with it from now on. */
export function endsNames({ loop, item }: Walked): Answer {
  for (const name of namesIn(item!)) {
    const to = referencesAt(name).find((one) => one.to)?.to;
    if (!to) return unknown("name.not-resolved", `what declares \`${name.text}\` is not known`, name);
    if (loop.closest(["function_definition"]) === undefined && isSeenElsewhere(to))
      return unknown("flow.used-later", `\`${name.text}\` can be seen by other files`, name);
    const used = isUsedAfter(to, loop);
    if (used.is === "yes") return no("flow.used-later", used.evidence.says, used.evidence);
    if (used.is === "unknown") return used;
  }
  return yes("flow.used-later", "the names of the loop are not used afterwards");
}

/** What may not stand in a comprehension, or means something else there. */
export function mayStand({ loop, item, items, sieves }: Walked, values: readonly SyntaxNode[]): Answer {
  const inside = [items, ...values, ...sieves.map(({ test }) => test)].flatMap((part) => [
    ...part.descendants(),
  ]);
  if (!item!.is(["identifier", "pattern_list", "tuple_pattern", "list_pattern"]))
    return no("form.fits", `the loop gives its items to \`${item!.text}\``, item);
  const bad = inside.find((node) => node.is(["yield", "await", "named_expression"]));
  if (bad)
    return no(
      "form.fits",
      `\`${bad.text.split("\n")[0]}\` may not stand in a comprehension, or means something else there`,
      bad,
    );
  const frame = inside.find(
    (node) =>
      node.is("call") && /^(super|locals|vars|dir|eval|exec)$/.test(node.child("function")?.text ?? ""),
  );
  if (frame) return no("name.scope", `\`${frame.text}\` asks for the function that it stands in`, frame);
  const made = inside.find((node) => node.is("lambda"));
  if (made) return no("name.scope", "a function that is made in the loop keeps the names of the loop", made);
  const above = loop.closest(["class_definition", "function_definition"]);
  if (above?.is("class_definition"))
    return no("name.scope", "a comprehension does not see the names of the class body around it", above);
  return yes("form.fits", "it may stand in a comprehension");
}

/** A test that is turned round must be the contrary. */
export function isEachContrary(sieves: readonly Sieve[]): Answer {
  return weakest([
    yes("value.result", "no test is turned round"),
    ...sieves.flatMap(({ test, isTrue }) => (isTrue ? [] : [isContrary(test)])),
  ]);
}

/** Calls that make something empty, or that new code writes, are those of the language. */
export function areBuiltin(names: readonly string[], at: SyntaxNode): Answer {
  return weakest([
    yes("name.library", "everything that is written is part of the language"),
    ...names.map((name) => isBuiltin(name, at)),
  ]);
}

/** An expression that is a clause of its own; what may not stand bare there gets brackets. */
export function bracketed(node: SyntaxNode): Segment[] {
  const code = copy(node.start, node.end);
  return node.is(["conditional_expression", "lambda", "expression_list"])
    ? [text("("), code, text(")")]
    : [code];
}

/** The test of a sieve as it must come out. */
export const asked = ({ test, isTrue }: Sieve): Segment[] => (isTrue ? bracketed(test) : negated(test));

/** `for x in xs`. */
export function forClause({ item, items }: Walked): Segment[] {
  return [text("for "), copy(item!.start, item!.end), text(" in "), ...bracketed(items)];
}

/** What is walked, where each item is taken as it is, and there is nothing to say about it; else the clauses. */
export function itselfOr({ item, items }: Walked, value: string, clauses: readonly Segment[][]): Segment[][] {
  const isItself = clauses.length === 2 && item!.is("identifier") && item!.text === value;
  return isItself ? [[copy(items.start, items.end)]] : [...clauses];
}

/** The text of new code. */
export const codeOf = (match: Match, segments: readonly Segment[]): string =>
  segments.map((one) => ("text" in one ? one.text : match.tree.text.slice(one.start, one.end))).join("");

/** `StopIteration` means the end of all items where it is raised in a generator. */
export function raisesNoEnd(parts: readonly SyntaxNode[]): Answer {
  const calls = parts.flatMap((part) => [...part.descendants()].filter((node) => node.is("call")));
  const next = calls.find((call) => call.child("function")?.text === "next");
  if (next) return no("flow.throws", `\`${shortened(next.text)}\` may raise StopIteration`, next);
  const open = calls.find((call) => !calledFromLibrary(call));
  return open
    ? unknown(
        "flow.throws",
        `\`${shortened(open.text)}\` could raise StopIteration, which is another error in a generator`,
        open,
      )
    : yes("flow.throws", "nothing raises StopIteration");
}

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
