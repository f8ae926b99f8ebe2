import type { SyntaxNode } from "../../../core.js";

/** What kind of plain value an expression gives, as far as its form says; undefined where it could be any. */
export type Sort = "text" | "number" | "switch";
export type Plain = string | number | boolean | null;

const TEXT_METHODS =
  /^(toFixed|toString|trim|trimStart|trimEnd|padStart|padEnd|join|toUpperCase|toLowerCase|repeat|toLocaleString|toPrecision)$/;
const ARITHMETIC = ["-", "*", "/", "%", "**"];
const COMPARISONS = ["===", "!==", "==", "!=", "<", ">", "<=", ">="];

/** What a name stands for, where it is known. */
export type Known<T> = (name: SyntaxNode) => T | undefined;

export function sortOf(node: SyntaxNode, known: Known<Sort>): Sort | undefined {
  if (node.is(["string", "template_string"])) return "text";
  if (node.is("number")) return "number";
  if (node.is(["true", "false"])) return "switch";
  if (node.is("parenthesized_expression")) return sortOf(node.firstPart!, known);
  if (node.is("identifier")) return known(node);
  if (node.is("unary_expression")) return node.child("operator")!.text === "!" ? "switch" : "number";
  if (node.is("member_expression")) return node.child("property")!.text === "length" ? "number" : undefined;
  if (node.is("ternary_expression")) {
    const one = sortOf(node.child("consequence")!, known);
    return one === sortOf(node.child("alternative")!, known) ? one : undefined;
  }
  if (node.is("binary_expression")) return sortOfOperation(node, known);
  if (!node.is("call_expression")) return undefined;
  const callee = node.child("function")!;
  if (callee.text === "String") return "text";
  if (callee.text === "Number" || callee.text.startsWith("Math.")) return "number";
  return callee.is("member_expression") && TEXT_METHODS.test(callee.child("property")!.text)
    ? "text"
    : undefined;
}

function sortOfOperation(node: SyntaxNode, known: Known<Sort>): Sort | undefined {
  const operator = node.child("operator")!.text;
  if (ARITHMETIC.includes(operator)) return "number";
  if (COMPARISONS.includes(operator)) return "switch";
  const one = sortOf(node.child("left")!, known);
  const other = sortOf(node.child("right")!, known);
  if (operator === "+") {
    if (one === "text" || other === "text") return "text";
    return one === "number" && other === "number" ? "number" : undefined;
  }
  return one === other && ["&&", "||", "??"].includes(operator) ? one : undefined;
}

/** The value of an expression, worked out; undefined where that cannot be told from the code. */
export function valueOfCode(node: SyntaxNode, known: Known<Plain>): Plain | undefined {
  const of = (part: SyntaxNode | undefined): Plain | undefined => part && valueOfCode(part, known);
  if (node.is("number")) return /^\d+(\.\d+)?$/.test(node.text) ? Number(node.text) : undefined;
  if (node.is("string")) return node.text.includes("\\") ? undefined : node.text.slice(1, -1);
  if (node.is("true")) return true;
  if (node.is("false")) return false;
  if (node.is("null")) return null;
  if (node.is("parenthesized_expression")) return of(node.firstPart);
  if (node.is("identifier")) return known(node);
  if (node.is("template_string")) return valueOfTemplate(node, of);
  if (node.is("unary_expression")) {
    const value = of(node.child("argument"));
    const operator = node.child("operator")!.text;
    if (value === undefined) return undefined;
    return operator === "!" ? !value : operator === "-" && typeof value === "number" ? -value : undefined;
  }
  if (node.is("ternary_expression")) {
    const test = of(node.child("condition"));
    return test === undefined ? undefined : of(node.child(test ? "consequence" : "alternative"));
  }
  if (node.is("binary_expression") && node.child("operator")!.text === "??") {
    const value = of(node.child("left"));
    return value === null ? of(node.child("right")) : value;
  }
  if (node.is("binary_expression"))
    return operation(node.child("operator")!.text, of(node.child("left")), of(node.child("right")));
  const callee = node.is("call_expression") ? node.child("function")! : undefined;
  const [given, more] = node.child("arguments")?.parts ?? [];
  if (callee?.text === "String" && given && !more) {
    const value = of(given);
    return value === undefined ? undefined : String(value);
  }
  return undefined;
}

function valueOfTemplate(node: SyntaxNode, of: (part: SyntaxNode) => Plain | undefined): string | undefined {
  let text = "";
  let { start } = node;
  for (const part of node.parts.filter((one) => one.is("template_substitution"))) {
    const value = of(part.firstPart!);
    if (value === undefined) return undefined;
    text += node.tree.text.slice(start + (start === node.start ? 1 : 0), part.start) + String(value);
    start = part.end;
  }
  text += node.tree.text.slice(start + (start === node.start ? 1 : 0), node.end - 1);
  return text.includes("\\") ? undefined : text;
}

function operation(operator: string, a: Plain | undefined, b: Plain | undefined): Plain | undefined {
  if (a === undefined || b === undefined) return undefined;
  if (operator === "&&") return a && b;
  if (operator === "||") return a || b;
  if (operator === "===" || operator === "==") return typeof a === typeof b ? a === b : undefined;
  if (operator === "!==" || operator === "!=") return typeof a === typeof b ? a !== b : undefined;
  if (operator === "+" && (typeof a === "string" || typeof b === "string")) return `${a}${b}`;
  if (typeof a !== "number" || typeof b !== "number") return undefined;
  const results: Readonly<Record<string, Plain>> = {
    "+": a + b,
    "-": a - b,
    "*": a * b,
    "/": a / b,
    "%": a % b,
    "<": a < b,
    ">": a > b,
    "<=": a <= b,
    ">=": a >= b,
  };
  return results[operator];
}

/** What an expression reads can only change when state does: no clock, no chance, nothing that runs code of its own. */
export function isSteady(node: SyntaxNode): boolean {
  return [...node.descendants()].every((one) => {
    if (one.is("call_expression")) {
      const callee = one.child("function")!;
      if (/^(String|Number|Boolean|Math\.(?!random)\w+)$/.test(callee.text)) return true;
      return callee.is("member_expression") && TEXT_METHODS.test(callee.child("property")!.text);
    }
    return !one.is([
      "new_expression",
      "await_expression",
      "yield_expression",
      "assignment_expression",
      "augmented_assignment_expression",
      "update_expression",
      "arrow_function",
      "function_expression",
      "this",
    ]);
  });
}
