import { functionAround } from "../../../core.js";
import type { SyntaxNode } from "../../../core.js";
import { unwrapped } from "./brackets.js";

const ALWAYS_EVALUATED = [
  "expression_statement",
  "variable_declaration",
  "lexical_declaration",
  "variable_declarator",
  "assignment_expression",
  "call_expression",
  "new_expression",
  "arguments",
  "member_expression",
  "subscript_expression",
  "parenthesized_expression",
  "object",
  "pair",
  "array",
  "spread_element",
  "template_string",
  "template_substitution",
  "unary_expression",
];
const LOGICAL = ["&&", "||", "??"];

/** Is this evaluated once while the file is loaded, whatever happens? */
export function isAtLoad(node: SyntaxNode): boolean {
  for (let at = node; ;) {
    const above = at.parent;
    if (!above || above.is("program")) return above !== undefined;
    const called = above.is("statement_block") ? calledAtOnce(above.parent) : undefined;
    if (called) {
      const returns = [...above.descendants()].some(
        (part) =>
          part.is("return_statement") && part.start < node.start && functionAround(part)?.same(above.parent),
      );
      if (returns) return false;
      at = called;
      continue;
    }
    const isLogical = above.is("binary_expression") && LOGICAL.some((token) => above.has(token));
    const isFirst = above.child(isLogical ? "left" : "condition")?.same(at) ?? false;
    const isPlain = above.is("binary_expression") && !isLogical;
    const isTested = (isLogical || above.is("ternary_expression")) && isFirst;
    if (!isPlain && !isTested && !above.is(ALWAYS_EVALUATED)) return false;
    // What a chain that may end early calls is not always called.
    if (above.has("?.") || above.children.some((child) => child.is("optional_chain"))) return false;
    at = above;
  }
}

/** The call of a function that is called where it stands: `(function () { … })()`. */
function calledAtOnce(node: SyntaxNode | undefined): SyntaxNode | undefined {
  if (!node?.is(["function_expression", "arrow_function"]) || node.has("async")) return undefined;
  const callee = unwrapped(node);
  const call = callee.parent;
  return call?.is("call_expression") && call.child("function")?.same(callee) ? call : undefined;
}

/** Does code run when the file is loaded, rather than when one of its functions is called? */
export function runsAtLoad(node: SyntaxNode): boolean {
  const around = functionAround(node);
  if (!around) return true;
  const call = calledAtOnce(around);
  return call !== undefined && runsAtLoad(call);
}
