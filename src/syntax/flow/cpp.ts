import {
  ordinaryMissing,
  CONDITIONAL,
  jump,
  likeC,
  ordinaryFlow,
  shortCircuits,
  type FlowFacts,
} from "../flow-facts.js";

const POINTED = { kind: "pointer_expression", arrow: "->" };

/** How control moves in C++. */
export const cppFlow: FlowFacts = {
  ...ordinaryFlow,
  shapes: {
    ...likeC,
    conditional_expression: CONDITIONAL,
    for_statement: { is: "loop", first: "initializer", test: "condition", update: "update", body: "body" },
    for_range_loop: { is: "each", over: "right", target: "declarator", body: "body" },
    switch_statement: {
      is: "choice",
      value: "condition",
      ways: ["case_statement"],
      fallsThrough: true,
      breaks: true,
      isDefault: (way) => way.has("default"),
    },
    try_statement: { is: "try", handlers: ["catch_clause"] },
    co_return_statement: jump("return"),
    goto_statement: jump("anywhere"),
    binary_expression: shortCircuits({ "&&": "true", "||": "false", and: "true", or: "false" }),
    unary_expression: (node) =>
      /^(!|not)$/.test(node.child("operator")?.text ?? "")
        ? { is: "negation", operators: ["!", "not"] }
        : undefined,
  },
  assignments: {
    init_declarator: { target: "declarator", value: "value" },
    assignment_expression: { target: "left", value: "right" },
    update_expression: { target: "argument" },
  },
  mayThrow: ["call_expression", "new_expression", "co_await_expression", "init_declarator"],
  movesPointers: ["+", "-", "<<", ">>"],
  neverReturn: [
    "exit",
    "abort",
    "std::exit",
    "std::abort",
    "std::terminate",
    "_Exit",
    "quick_exit",
    "_exit",
    "longjmp",
    "std::longjmp",
    "std::_Exit",
    "std::quick_exit",
    "__builtin_unreachable",
    "std::rethrow_exception",
  ],
  iterators: [
    { begin: "begin", end: "end", pointed: POINTED },
    { begin: "cbegin", end: "cend", pointed: POINTED },
  ],
  counting: { ...ordinaryFlow.counting, lengthMembers: ["size()", "length()"] },
  missing: {
    ...ordinaryMissing,
    literals: ["nullptr", "null", "NULL", "0"],
    equal: ["=="],
    unequal: ["!="],
    truthIsPresence: true,
    typeTests: [],
    present: [],
    missing: [],
    held: ["is_open"],
    creations: ["new_expression", "this", "string_literal"],
    readsThrow: false,
  },
  label: (node) => node.child("label")?.text,
};
