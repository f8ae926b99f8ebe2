import { copy, indentUnit, ownLine, reindent, text, unnegated } from "../../core.js";
import type { Demand, Match, Segment, Sieve, SyntaxNode } from "../../core.js";
import { mostInLine } from "./limits.js";
import { withoutParentheses } from "./parentheses.js";

/** How a language turns a comparison round. */
export interface Opposites {
  /** The operators whose contrary is another operator, by each. */
  readonly opposite: Readonly<Record<string, string>>;
  /** Is the opposite operator the contrary for what is compared here? */
  isContrary(comparison: SyntaxNode): boolean;
  /** Is what a test gives always true or false, so that `x == false` says `!x`? */
  readonly hasPlainTruth?: true;
}

/** Nodes that need no brackets ahead of a member or behind `!`. */
function isClosed(node: SyntaxNode): boolean {
  const { calls, indexReads, memberReads, parenthesized } = node.tree.language;
  const isNew = node.parts.length > 0 && /creation|new_expression/.test(node.kind);
  return (
    !isNew && (node.isLeaf || node.is([...calls, ...indexReads, ...memberReads, ...parenthesized, "array"]))
  );
}

/** What a method is called on. */
export function receiver(node: SyntaxNode): Segment[] {
  const code = copy(node.start, node.end);
  return isClosed(node) ? [code] : [text("("), code, text(")")];
}

/** Operators that bind less than `&&` does. */
const LOOSE = /^(?:\|\||\?\?|=>|,)$/;
const LOOSE_KINDS =
  /ternary|conditional_expression|assignment|lambda|arrow_function|sequence|yield|switch_expression/;

function isLoose(node: SyntaxNode): boolean {
  return LOOSE_KINDS.test(node.kind) || node.children.some((child) => !child.named && LOOSE.test(child.text));
}

/** The operator of a comparison, where it has an opposite for what is compared. */
function oppositeIn(node: SyntaxNode, { opposite, isContrary }: Opposites): string | undefined {
  if (!node.is(node.tree.language.binary)) return undefined;
  const found = opposite[node.child("operator")?.text ?? ""];
  return found !== undefined && isContrary(node) ? found : undefined;
}

/** A test that is always true or false, without a comparison with true or false. */
function plainly(asked: Demand): Demand {
  const inner = withoutParentheses(asked.test);
  const operator = inner.child("operator")?.text ?? "";
  const word = inner.lastPart?.text ?? "";
  if (!/^[!=]=$/.test(operator) || !/^(true|false)$/.test(word)) return asked;
  const isSame = (operator === "==") === (word === "true");
  return plainly(unnegated(inner.firstPart!, isSame === asked.isTrue));
}

/** A test as it must come out, without more brackets than it needs: where that is short, else behind a `!`. */
function askedBy(
  { test, isTrue }: Sieve,
  by: Opposites,
): { code: Segment[]; isShort: boolean; at: SyntaxNode | undefined } {
  const plain = unnegated(test, isTrue);
  const asked = by.hasPlainTruth ? plainly(plain) : plain;
  const inner = withoutParentheses(asked.test);
  const whole = copy(inner.start, inner.end);
  if (asked.isTrue) return { code: [whole], isShort: true, at: inner };
  const operator = inner.child("operator");
  const opposite = oppositeIn(inner, by);
  if (operator && opposite !== undefined) {
    const [before, behind] = [copy(inner.start, operator.start), copy(operator.end, inner.end)];
    return { code: [before, text(opposite), behind], isShort: true, at: undefined };
  }
  const code = isClosed(inner) ? [text("!"), whole] : [text("!("), whole, text(")")];
  return { code, isShort: false, at: undefined };
}

/** All tests as one. */
export function together(sieves: readonly Sieve[], by: Opposites): Segment[] {
  return sieves.flatMap((sieve, i) => {
    const { code, at } = askedBy(sieve, by);
    const one = sieves.length > 1 && at && isLoose(at) ? [text("("), ...code, text(")")] : code;
    return [...(i === 0 ? [] : [text(" && ")]), ...one];
  });
}

/** The contrary of the only test, where it can be said without a `!` ahead of it. */
export function contraryOf([only, ...more]: readonly Sieve[], by: Opposites): Segment[] | undefined {
  if (!only || more.length > 0) return undefined;
  const { code, isShort } = askedBy({ ...only, isTrue: !only.isTrue }, by);
  return isShort ? code : undefined;
}

/** A call that is handed a function: what stands ahead of the function (`.some(`), its head and its body. */
export interface FunctionCall {
  readonly open: string;
  readonly head: string;
  readonly code: readonly Segment[];
}

/**
 * Calls that follow on something, some with a function, others as they are written: on one line where that is short enough, else
 * each on a line of its own; a single call has its function on lines of its own then.
 */
export function called(
  match: Match,
  ahead: readonly Segment[],
  ...calls: readonly (FunctionCall | string)[]
): Segment[] {
  const { tree } = match;
  const base = tree.indentAt(match.found.start);
  const deeper = base + indentUnit(tree, base);
  const moved = (code: readonly Segment[], to: string): Segment[] =>
    code.map((one) =>
      "text" in one
        ? one
        : copy(one.start, one.end, reindent(tree, one.start, one.end, tree.indentAt(one.start), to)),
    );
  const onOne = [
    ...ahead,
    ...calls.flatMap((call) =>
      typeof call === "string"
        ? [text(call)]
        : [text(`${call.open}${call.head} `), ...moved(call.code, base), text(")")],
    ),
  ];
  const lines = onOne
    .map((one) => ("text" in one ? one.text : tree.text.slice(one.start, one.end)))
    .join("")
    .split("\n");
  const isShort = tree.placeAt(match.place.start).column + lines[0]!.length <= mostInLine(match);
  // What is long by what stands between its brackets stays in the line that it begins in.
  const isOpen = lines.length === 1 || (calls.length === 1 && /[([{]$/.test(lines[0]!.trimEnd()));
  if (isShort && isOpen) return onOne;
  const [only, ...more] = calls;
  if (more.length > 0 || typeof only === "string")
    return [
      ...ahead,
      ...calls.flatMap((call) =>
        typeof call === "string"
          ? [ownLine(deeper, call)]
          : [ownLine(deeper, `${call.open}${call.head} `), ...moved(call.code, deeper), text(")")],
      ),
    ];
  const { open, head, code } = only!;
  return [
    ...ahead,
    text(open.trimEnd()),
    ownLine(deeper, `${head} `),
    ...moved(code, deeper),
    ownLine(base, ")"),
  ];
}
