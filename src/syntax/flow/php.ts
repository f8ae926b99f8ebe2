import { ordinaryMissing, jump, likeC, ordinaryFlow, shortCircuits, type FlowFacts } from "../flow-facts.js";
import type { SyntaxNode } from "../node.js";

/** Here, `throw` is an expression. */
const { throw_statement: _, ...shapes } = likeC;

const FUNCTIONS = ["function_definition", "method_declaration", "anonymous_function", "arrow_function"];

/** What is assigned by `=&`, and what a function gives that is declared with `&`. */
function takesVariable({ parent }: SyntaxNode): boolean {
  if (!parent) return false;
  if (parent.is(["reference_assignment_expression", "by_ref"])) return true;
  const isGiven = parent.is(["return_statement", "yield_expression", "arrow_function"]);
  const around = isGiven ? parent.closest(FUNCTIONS) : undefined;
  return around?.children.some((child) => child.is("reference_modifier")) === true;
}

/** How control moves in PHP. */
export const phpFlow: FlowFacts = {
  ...ordinaryFlow,
  shapes: {
    ...shapes,
    if_statement: { is: "branch", test: "condition", then: "body", otherwise: "alternative" },
    else_if_clause: { is: "branch", test: "condition", then: "body" },
    conditional_expression: { is: "branch", test: "condition", then: "body", otherwise: "alternative" },
    for_statement: { is: "loop", first: "initialize", test: "condition", update: "update", body: "body" },
    foreach_statement: { is: "each", over: 0, target: 1, body: "body" },
    switch_statement: {
      is: "choice",
      value: "condition",
      ways: ["case_statement", "default_statement"],
      labels: "value",
      isLoose: true,
      fallsThrough: true,
      breaks: true,
      isDefault: (way) => way.is("default_statement"),
    },
    match_expression: {
      is: "choice",
      value: "condition",
      ways: ["match_conditional_expression", "match_default_expression"],
      labels: "conditional_expressions",
      exhaustive: true,
      isDefault: (way) => way.is("match_default_expression"),
    },
    try_statement: { is: "try", handlers: ["catch_clause"], lastly: "finally_clause" },
    throw_expression: jump("throw"),
    exit_statement: jump("throw"),
    goto_statement: jump("anywhere"),
    binary_expression: shortCircuits({
      "&&": "true",
      "||": "false",
      and: "true",
      or: "false",
      "??": "missing",
    }),
    unary_op_expression: (node) => (node.has("!") ? { is: "negation", operators: ["!"] } : undefined),
  },
  assignments: {
    assignment_expression: { target: "left", value: "right" },
    reference_assignment_expression: { target: "left", value: "right" },
    augmented_assignment_expression: { target: "left", value: "right" },
    update_expression: { target: "argument" },
  },
  takesVariable,
  assignsIf: { "??=": "missing" },
  chains: [
    "member_access_expression",
    "nullsafe_member_access_expression",
    "member_call_expression",
    "nullsafe_member_call_expression",
    "subscript_expression",
  ],
  chainBreaks: ["?->"],
  mayThrow: [
    "function_call_expression",
    "member_call_expression",
    "scoped_call_expression",
    "nullsafe_member_call_expression",
    "object_creation_expression",
    "member_access_expression",
    "subscript_expression",
    "binary_expression",
    "include_expression",
    "yield_expression",
    "foreach_statement",
  ],
  safeStep: { tokens: { "->": "?->", "?->": "?->" }, brackets: {}, reachesOn: true, bars: () => false },
  comparesMissing: { toFalse: ["==="], toTrue: ["!=="] },
  neverReturn: ["die", "exit"],
  counting: { ...ordinaryFlow.counting, lengthFunctions: ["count", "sizeof"] },
  missing: {
    ...ordinaryMissing,
    exactly: { equal: ["==="], unequal: ["!=="] },
    literals: ["null"],
    loose: ["==", "!=", "<>"],
    coalesceAsks: "set",
    equal: ["==", "==="],
    unequal: ["!=", "!==", "<>"],
    questions: {
      isset: { isThere: true, asks: "set", of: "argument" },
      is_null: { isThere: false, asks: "missing", of: "argument" },
    },
    keys: {
      array_key_exists: { collection: 1, key: 0 },
      key_exists: { collection: 1, key: 0 },
    },
    truthIsPresence: true,
    typeTests: ["instanceof"],
    present: ["isset"],
    missing: ["is_null", "empty"],
    held: ["is_resource"],
    creations: [
      "object_creation_expression",
      "array_creation_expression",
      "string",
      "encapsed_string",
      "integer",
      "float",
    ],
    readsThrow: false,
  },
  label: () => undefined,
  levels: (node) => Number(node.firstPart?.text ?? 1) || 1,
};
