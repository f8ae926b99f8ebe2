import { copy, indentUnit, reindent, text } from "../../core.js";
import type { Arm, Match, Segment, SyntaxNode } from "../../core.js";

/** How a language writes an expression that chooses a value by a constant. */
export interface SwitchStyle {
  /** The head, around what is asked. */
  readonly head: (subject: Segment) => readonly Segment[];
  /** Ahead of the constants, between two of them, and behind them; what stands there for all else. */
  readonly label: { readonly before: string; readonly between: string; readonly otherwise: string };
  readonly arrow: string;
  /** Behind each value, and behind the last. */
  readonly end: string;
  readonly lastEnd: string;
  /** Does `throw` stay a statement, with its semicolon? */
  readonly throwsAsStatement: boolean;
}

/** Writes a `switch` whose ways give values as one expression, which is returned, assigned or declared. */
export function asExpression({ switched, tree }: Match, style: SwitchStyle): Segment[] {
  const { node, subject, arms, target, declared } = switched;
  const base = tree.indentAt(node.start);
  const end = tree.text.includes("\r\n") ? "\r\n" : "\n";
  const body = node.child("body")!;
  const inner = tree.indentAt(body.firstPart!.start);
  const indent = inner === base ? base + indentUnit(tree, base) : inner;
  const isOneLine = !node.text.includes("\n");
  // In one line, nothing stands behind the last comma.
  const lastEnd = isOneLine ? style.lastEnd.replace(",", "") : style.lastEnd;
  const [before, behind] = isOneLine ? [" ", ""] : [indent, end];
  const open = /\s*$/.exec(tree.text.slice(0, body.start))![0];
  const gives = ({ gives: value, throws }: Arm, isLast: boolean): Segment[] => {
    // The end of the statement stays.
    const whole = throws ? value : statementOf(value);
    const ends = whole.text.endsWith(";") ? whole.end - 1 : whole.end;
    const ending = isLast ? lastEnd : style.end;
    const sign = throws && style.throwsAsStatement ? ";" : ending;
    const inside = reindent(tree, value.start, Math.min(value.end, ends), tree.indentAt(value.start), indent);
    const last = { start: Math.min(value.end, ends), end: whole.end, text: sign };
    return [copy(value.start, whole.end, [...inside, last])];
  };
  const comments = tree
    .ofKinds(tree.language.comments)
    .map((n) => tree.node(n))
    .filter((one) => node.start < one.start && one.end < node.end);
  const labelled = ({ labels }: Arm): Segment[] => {
    const [first, last] = [labels[0], labels.at(-1)];
    if (!first || !last) return [text(style.label.otherwise)];
    const isLong = labels.reduce((sum, label) => sum + label.text.length + 2, 0) > LONG;
    const isApart = isLong || comments.some((one) => first.start < one.start && one.end < last.end);
    const { before: word, between } = style.label;
    // A sign stays behind its constant, and a word stands ahead of the next.
    const [sign, lead] = between.startsWith(" ") ? ["", between.trimStart()] : [between.trimEnd(), ""];
    return labels.flatMap((label, n): Segment[] => {
      const own = [text(n === 0 ? word : isApart ? lead : between), copy(label.start, label.end)];
      const next = labels[n + 1];
      if (!isApart || !next) return own;
      const behind = comments.filter((one) => label.end <= one.start && one.end <= next.start);
      return [
        ...own,
        text(sign),
        ...behind.flatMap((one) => [
          text(tree.firstOnLine(one.start) === one.start ? `${end}${indent}` : " "),
          copy(one.start, one.end),
        ]),
        text(`${end}${indent}`),
      ];
    });
  };
  return [
    ...leadOf(target, declared),
    ...style.head(copy(subject.start, subject.end)),
    text(`${open}{${behind}`),
    ...arms.flatMap((arm, n): Segment[] => {
      const { above, beside } = remarksOf(arm, comments);
      return [
        ...above.flatMap((one) => [text(before), copy(one.start, one.end), text(end)]),
        text(before),
        ...labelled(arm),
        text(style.arrow),
        ...gives(arm, n === arms.length - 1),
        ...(beside ? [text(" "), copy(beside.start, beside.end)] : []),
        text(beside ? end : behind),
      ];
    }),
    text(isOneLine ? " };" : `${base}};`),
  ];
}

/** Constants that would fill more than a line stand on lines of their own. */
const LONG = 90;
const WAYS = ["switch_block_statement_group", "switch_section", "case_statement", "default_statement"];

/** The comments of one way: those on lines of their own, and one beside its value. */
function remarksOf(
  { labels, gives, throws }: Arm,
  comments: readonly SyntaxNode[],
): {
  readonly above: readonly SyntaxNode[];
  readonly beside: SyntaxNode | undefined;
} {
  const { tree } = gives;
  const statement = throws ? gives : statementOf(gives);
  const left = statement.nextPart?.text === "break;" ? statement.nextPart : undefined;
  const way = labels[0]?.closest(WAYS) ?? statement.closest(WAYS);
  // The statement behind the whole is none of its ways.
  if (!way) return { above: [], beside: undefined };
  const earlier = way.previousPart;
  const from = earlier ? Math.max(earlier.end, tree.text.indexOf("\n", earlier.end)) : way.parent!.start;
  const lineEnds = tree.text.indexOf("\n", (left ?? statement).end);
  const remarks = comments.filter(
    ({ start, end }) =>
      start >= from &&
      (end <= lineEnds || lineEnds < 0) &&
      (end <= gives.start || start >= statement.end) &&
      !(labels.length > 1 && labels[0]!.start < start && end < labels.at(-1)!.start),
  );
  const isOnLine = (one: SyntaxNode): boolean => tree.firstOnLine(one.start) !== one.start;
  const beside = remarks.findLast(isOnLine);
  return { above: remarks.filter((one) => one !== beside), beside };
}

/** The statement that gives a value somewhere. */
function statementOf(value: SyntaxNode): SyntaxNode {
  const { statementLists } = value.tree.language;
  return [...value.ancestors()].find((above) => above.parent?.is(statementLists) === true) ?? value;
}

/** What stands ahead of the value. */
function leadOf(target: SyntaxNode | undefined, declared: SyntaxNode | undefined): Segment[] {
  if (declared) return [copy(declared.start, declared.end - 1), text(" = ")];
  return target ? [copy(target.start, target.end), text(" = ")] : [text("return ")];
}
