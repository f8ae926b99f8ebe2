import type { SyntaxNode } from "../../core.js";

const KINDS = /^(?:dynamic_variable_name|(?:include|require)(?:_once)?_expression)$/;
const CALLS = /^\\?(?:compact|extract|parse_str|get_defined_vars|eval|func_get_args)\s*\(/i;

/** The first code that reaches variables by names that are worked out when it runs. */
export function reachingByName(nodes: readonly SyntaxNode[]): SyntaxNode | undefined {
  return nodes
    .flatMap((node) => [...node.descendants()])
    .find((node) => KINDS.test(node.kind) || CALLS.test(node.text));
}
