import { copy, indentUnit, reindent, text } from "../../core.js";
import type { Arm, Match, Segment, SyntaxNode } from "../../core.js";
import { mostInLine } from "./limits.js";
import { isOnOwnLine, remarksOf, type Remarks } from "./switch-remarks.js";

/** How a language writes an expression that chooses a value by a constant. */
export interface SwitchStyle {
  /** The head, around what is asked. */
  readonly head: (subject: SyntaxNode) => readonly Segment[];
  /** Ahead of the constants, and between two of them; what stands there for all else. */
  readonly label: { readonly before: string; readonly between: string; readonly otherwise: string };
  readonly arrow: string;
  /** Behind each value, and behind the last. */
  readonly end: string;
  readonly lastEnd: string;
  /** Does `throw` stay a statement, with its semicolon? */
  readonly throwsAsStatement: boolean;
}

/** Writes a `switch` whose ways give values as one expression, which is returned, assigned or declared. */
export function asExpression(match: Match, style: SwitchStyle): Segment[] {
  const { tree, found, switched } = match;
  const { node, subject, arms, target, declared } = switched;
  const body = node.child("body")!;
  const base = tree.indentAt(node.start);
  const inner = tree.indentAt(body.firstPart!.start);
  const indent = inner === base ? base + indentUnit(tree, base) : inner;
  const isOneLine = !node.text.includes("\n");
  const [before, behind] = isOneLine ? [" ", ""] : [indent, "\n"];
  const open = /\s*$/.exec(tree.text.slice(0, body.start))![0] || " ";
  const comments = tree
    .ofKinds(tree.language.comments)
    .map((n) => tree.node(n))
    .filter((one) => node.start < one.start && one.end < found.end);
  return [
    ...leadOf(target, declared),
    ...style.head(subject),
    text(`${open}{${behind}`),
    ...arms.flatMap((arm, n): Segment[] => {
      const remarks = remarksOf(arm, node, comments);
      const isLast = n === arms.length - 1;
      // In one line, nothing stands behind the last comma.
      const sign = !isLast ? style.end : isOneLine ? style.lastEnd.replace(",", "") : style.lastEnd;
      return [
        ...remarks.above.flatMap((one) => [text(before), copy(one.start, one.end), text("\n")]),
        text(before),
        ...constantsOf(arm, remarks, style, { indent, isLong: lengthOf(arm) > mostInLine(match) }),
        text(style.arrow),
        valueOf(arm, arm.throws && style.throwsAsStatement ? ";" : sign, indent),
        ...(remarks.beside ? [text(" "), copy(remarks.beside.start, remarks.beside.end)] : []),
        text(remarks.beside ? "\n" : behind),
      ];
    }),
    text(isOneLine ? " };" : `${base}};`),
  ];
}

/** What stands ahead of the value. */
function leadOf(target: SyntaxNode | undefined, declared: SyntaxNode | undefined): Segment[] {
  if (declared) return [copy(declared.start, declared.end - 1), text(" = ")];
  return target ? [copy(target.start, target.end), text(" = ")] : [text("return ")];
}

/** How long the line of a value would be, with its first line only. */
function lengthOf({ labels, gives }: Arm): number {
  const { tree } = gives;
  const start = labels[0] ? tree.indentAt(labels[0].start).length : 0;
  const constants = labels.reduce((sum, label) => sum + label.text.length + 2, 0);
  return start + constants + gives.text.split("\n", 1)[0]!.length + 8;
}

/** The constants of a value, side by side; each on a line of its own where they are too long, or have comments. */
function constantsOf(
  { labels }: Arm,
  { between: remarks }: Remarks,
  { label: { before, between, otherwise } }: SwitchStyle,
  { indent, isLong }: { readonly indent: string; readonly isLong: boolean },
): Segment[] {
  if (labels.length === 0) return [text(otherwise)];
  const isApart = isLong || remarks.length > 0;
  // A sign stays behind its constant, and a word stands ahead of the next.
  const [sign, lead] = between.startsWith(" ") ? ["", between.trimStart()] : [between.trimEnd(), ""];
  return labels.flatMap((label, n): Segment[] => {
    const own = [text(n === 0 ? before : isApart ? lead : between), copy(label.start, label.end)];
    const next = labels[n + 1];
    if (!isApart || !next) return own;
    const behind = remarks.filter((one) => label.end <= one.start && one.end <= next.start);
    return [
      ...own,
      text(sign),
      ...behind.flatMap((one) => [text(isOnOwnLine(one) ? `\n${indent}` : " "), copy(one.start, one.end)]),
      text(`\n${indent}`),
    ];
  });
}

/** A value, or what is thrown, with a sign in the place of the semicolon of its statement. */
function valueOf({ gives, statement }: Arm, sign: string, indent: string): Segment {
  const { tree } = gives;
  const end = statement.text.endsWith(";") ? statement.end - 1 : statement.end;
  const inside = reindent(tree, gives.start, Math.min(gives.end, end), tree.indentAt(gives.start), indent);
  const last = { start: Math.min(gives.end, end), end: statement.end, text: sign };
  return copy(gives.start, statement.end, [...inside, last]);
}
