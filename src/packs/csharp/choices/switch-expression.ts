import {
  condition,
  copy,
  holes,
  indentUnit,
  isSideEffectFree,
  ofKind,
  rule,
  shortened,
  text,
  trialsIn,
  typeOf,
  unknown,
  yes,
} from "../../../core.js";
import type { Answer, Match, Segment, SyntaxNode } from "../../../core.js";
import { isOfOneType } from "./one-type.js";
import { asSubject } from "./subject.js";
import { casesOf, stepsAt } from "./steps.js";

const { whole } = holes({ whole: { kind: "expression", node: "conditional_expression" } });

const fits = (node: SyntaxNode): boolean => {
  const steps = stepsAt(node);
  return steps !== undefined && casesOf(steps) !== undefined;
};

/** A pattern asks for the value itself; an operator may be one that a class defines. */
function comparesPlainly(match: Match): Answer {
  const { subject, constants } = casesOf(stepsAt(match.the(whole))!)!;
  const literal = constants.every((one) => /^(integer|string|character|boolean)_literal$/.test(one.kind));
  const type = typeOf(subject)?.name;
  if (
    type !== undefined &&
    /^(int|string|char|bool|long|byte|short|uint|ulong|ushort|sbyte)$/.test(type) &&
    literal
  )
    return yes("type.operator", `\`${shortened(subject.text)}\` is a \`${type}\``, subject);
  return unknown(
    "type.operator",
    `\`${shortened(subject.text)}\` could be of a class with an operator of its own, or compared with what is no constant`,
    subject,
  );
}

function isAskedOnce(match: Match): Answer {
  const { subject } = casesOf(stepsAt(match.the(whole))!)!;
  return isSideEffectFree(subject);
}

function cases(match: Match): Segment[] {
  const node = match.the(whole);
  const { steps, otherwise } = stepsAt(node)!;
  const { subject, constants } = casesOf(stepsAt(node)!)!;
  const { tree } = node;
  const indent = tree.indentAt(node.start);
  const unit = indentUnit(tree, indent);
  const end = tree.text.includes("\r\n") ? "\r\n" : "\n";
  const arms = steps.flatMap(({ value }, n): Segment[] => [
    text(`${indent}${unit}`),
    copy(constants[n]!.start, constants[n]!.end),
    text(" => "),
    copy(value.start, value.end),
    text(`,${end}`),
  ]);
  return [
    ...asSubject(subject),
    text(` switch${end}${indent}{${end}`),
    ...arms,
    text(`${indent}${unit}_ => `),
    copy(otherwise.start, otherwise.end),
    text(`${end}${indent}}`),
  ];
}

const { rewrites, ignores } = trialsIn("csharp", "8.0");
const inMethod = (code: string): string =>
  `class A\n{\n    string F(int a, string b)\n    {\n        ${code}\n    }\n}\n`;

export const switchExpression = rule({
  id: "csharp/switch-expression",
  kind: "idiom",
  title: "Use a switch expression for conditional operators that ask one value",
  why: "The same comparison stands in every line, and the reader must check that it is the same.",
  target: "8.0",
  was: ofKind(whole, { when: fits }),
  mentions: ["?"],
  given: [
    condition("constants are compared as the language compares them", comparesPlainly),
    condition("asking once is as good as asking several times", isAskedOnce),
    condition("all values are of one type", (match) => isOfOneType(match.the(whole))),
  ],
  becomes: cases,
  trials: [
    rewrites(
      inMethod('return a == 1 ? "x" : a == 2 ? "y" : "z";'),
      inMethod(
        'return a switch\n        {\n            1 => "x",\n            2 => "y",\n            _ => "z"\n        };',
      ),
    ),
    rewrites(
      inMethod('return b == "x" ? "1" : ("y" == b ? "2" : null);'),
      inMethod(
        'return b switch\n        {\n            "x" => "1",\n            "y" => "2",\n            _ => null\n        };',
      ),
    ),
    rewrites(
      inMethod('return a == Taste.Sweet ? "x" : a == Taste.Sour ? "y" : "z";'),
      inMethod(
        'return a switch\n        {\n            Taste.Sweet => "x",\n            Taste.Sour => "y",\n            _ => "z"\n        };',
      ),
      "likely",
    ),
    ignores(inMethod('return a == 1 ? "x" : a == 1 ? "y" : "z";')),
    ignores(inMethod('return a == 1 ? "x" : b == "y" ? "y" : "z";')),
    ignores(inMethod('return a == 1 ? "x" : a > 2 ? "y" : "z";')),
    ignores(inMethod('return a == 1 ? "x" : "z";')),
    ignores(inMethod('return a++ == 1 ? "x" : a++ == 2 ? "y" : "z";')),
    trialsIn("csharp", "7.3").ignores(inMethod('return a == 1 ? "x" : a == 2 ? "y" : "z";')),
  ],
});
