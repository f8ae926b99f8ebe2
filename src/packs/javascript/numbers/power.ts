import { builtin, copy, holes, javascript, rule, text, trialsIn } from "../../../core.js";
import type { Match, Segment, SyntaxNode } from "../../../core.js";

const { base, exponent } = holes({
  base: { kind: "expression", text: /^(?!\.\.\.)/ },
  exponent: { kind: "expression", text: /^(?!\.\.\.)/ },
});

/** What may stand on both sides of the operator as it is. */
const PLAIN = [
  "identifier",
  "number",
  "member_expression",
  "subscript_expression",
  "call_expression",
  "this",
  "parenthesized_expression",
  "string",
];

/** What may hold the new code as it is: where nothing binds more tightly than the operator. */
const LOOSE = [
  "arguments",
  "array",
  "assignment_expression",
  "augmented_assignment_expression",
  "arrow_function",
  "expression_statement",
  "for_statement",
  "pair",
  "parenthesized_expression",
  "return_statement",
  "template_substitution",
  "variable_declarator",
];
const OPERATORS = "+ - * / % < > <= >= == === != !== && || ??".split(" ");

function mustBeBracketed({ parent, field }: SyntaxNode): boolean {
  if (!parent || parent.is(LOOSE)) return false;
  if (parent.is("subscript_expression")) return field !== "index";
  return !(parent.is("binary_expression") && OPERATORS.includes(parent.child("operator")?.text ?? ""));
}

/** A sign or a word ahead of the base is not allowed by the language. */
function side(node: SyntaxNode): Segment[] {
  const whole = copy(node.start, node.end);
  return node.is(PLAIN) ? [whole] : [text("("), whole, text(")")];
}

function power(match: Match): Segment[] {
  const power = match.the(exponent);
  const isSigned = power.is("unary_expression");
  const above = isSigned ? [copy(power.start, power.end)] : side(power);
  const code = [...side(match.the(base)), text(" ** "), ...above];
  return mustBeBracketed(match.node) ? [text("("), ...code, text(")")] : code;
}

const js = trialsIn("javascript");

export const powerOperator = rule({
  id: "javascript/power-operator",
  kind: "idiom",
  title: "Use ** for powers",
  why: "The operator reads as it is written in a formula.",
  was: javascript`Math.pow(${base}, ${exponent})`,
  given: [builtin("Math")],
  becomes: power,
  trials: [
    js.rewrites("const a = Math.pow(x, 2);", "const a = x ** 2;"),
    js.rewrites("const a = Math.pow(-x, 2);", "const a = (-x) ** 2;"),
    js.rewrites("const a = Math.pow(10, -2);", "const a = 10 ** -2;"),
    js.rewrites("const a = Math.pow(x + 1, y - 1);", "const a = (x + 1) ** (y - 1);"),
    js.rewrites("const a = -Math.pow(x, 2);", "const a = -(x ** 2);"),
    js.rewrites("const a = 3 * Math.pow(x, 2) + 1;", "const a = 3 * x ** 2 + 1;"),
    js.rewrites("const a = Math.pow(x, 2).toFixed(1);", "const a = (x ** 2).toFixed(1);"),
    js.rewrites("const a = Math.pow(Math.pow(x, 2), 3);", "const a = (x ** 2) ** 3;"),
    js.rewrites("const a = Math.pow(x, Math.pow(y, 2));", "const a = x ** y ** 2;"),
    js.rewrites(
      "async function f() { return Math.pow(await x, 2); }",
      "async function f() { return (await x) ** 2; }",
    ),
    js.rewrites("const a = Math.pow(b ? 1 : 2, 2);", "const a = (b ? 1 : 2) ** 2;"),
    js.rewrites("const a = [1][Math.pow(x, 2)];", "const a = [1][x ** 2];"),
    js.rewrites("const a = typeof Math.pow(x, 2);", "const a = typeof (x ** 2);"),
    js.rewrites("const a = Math.pow(x, /* half */ 0.5);", "const a = x ** /* half */ 0.5;"),
    js.holds("const Math = load(); f(Math.pow(x, 2));", "given another meaning"),
    js.ignores("Math.pow(...pair);"),
    js.ignores("Math.pow(x);"),
    js.ignores("const f = Math.pow;"),
    trialsIn("javascript", "2015").ignores("const a = Math.pow(x, 2);"),
  ],
});
