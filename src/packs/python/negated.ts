import { copy, text, typeOf, unknown, yes } from "../../core.js";
import type { Answer, Segment, SyntaxNode } from "../../core.js";

const OPPOSITE: Readonly<Record<string, string>> = {
  is: "is not",
  "is not": "is",
  in: "not in",
  "not in": "in",
  "==": "!=",
  "!=": "==",
};

/** The operator of a comparison of two values. */
function comparisonOf(node: SyntaxNode): string | undefined {
  if (!node.is("comparison_operator") || node.parts.length !== 2) return undefined;
  const [left, right] = node.parts;
  return node.tree.text.slice(left!.end, right!.start).trim().replace(/\s+/g, " ");
}

/** Does each operand have a contrary of its own, so that no brackets are needed? */
function isSimplerApart(node: SyntaxNode): boolean {
  const operands = [node.child("left")!, node.child("right")!];
  const isShort = (one: SyntaxNode): boolean =>
    one.is("not_operator") || OPPOSITE[comparisonOf(one) ?? ""] !== undefined;
  const isSame = (one: SyntaxNode): boolean =>
    one.is("boolean_operator") &&
    one.child("operator")!.text === node.child("operator")!.text &&
    isSimplerApart(one);
  const inner = (one: SyntaxNode): SyntaxNode | undefined =>
    one.is("not_operator") ? one.firstPart : undefined;
  return operands.every(
    (one) => (isShort(one) && !inner(one)?.is(["parenthesized_expression"])) || isSame(one),
  );
}

/** A condition the other way round. */
export function negated(node: SyntaxNode): Segment[] {
  if (node.is("parenthesized_expression")) return negated(node.firstPart!);
  if (node.is("not_operator")) {
    const inner = node.firstPart!;
    return [copy(inner.start, inner.end)];
  }
  const operator = comparisonOf(node);
  const opposite = operator === undefined ? undefined : OPPOSITE[operator];
  if (opposite !== undefined) {
    const [left, right] = node.parts;
    return [copy(left!.start, left!.end), text(` ${opposite} `), copy(right!.start, right!.end)];
  }
  if (node.is("boolean_operator") && isSimplerApart(node)) {
    const [left, right] = [node.child("left")!, node.child("right")!];
    const word = node.child("operator")!.text === "and" ? "or" : "and";
    return [...negated(left), text(` ${word} `), ...negated(right)];
  }
  const needs = node.is(["boolean_operator", "conditional_expression", "lambda", "named_expression"]);
  return [text(needs ? "not (" : "not "), copy(node.start, node.end), text(needs ? ")" : "")];
}

/** Is a condition turned round the contrary? Some classes say for themselves what is not equal. */
export function isContrary(condition: SyntaxNode): Answer {
  const tests = [...condition.descendants()].filter((one) => ["==", "!="].includes(comparisonOf(one) ?? ""));
  const open = tests.find((test) => !test.parts.some(isBuiltIn));
  if (open) {
    const [left] = open.parts;
    return unknown("value.result", `\`${left!.text}\` could say for itself what is not equal`, left);
  }
  const plain = tests[0]?.parts.find(isBuiltIn);
  return plain
    ? yes("value.result", `\`${plain.text}\` is a built-in value`, plain)
    : yes("value.result", "the condition is the contrary");
}

function isBuiltIn(node: SyntaxNode): boolean {
  const type = typeOf(node);
  return type !== undefined && type.module === undefined && !type.declared;
}
