import { CONDITIONAL, jump, likeC, ordinaryFlow, shortCircuits, type FlowFacts } from "../flow-facts.js";

/** How control moves in Java. */
export const javaFlow: FlowFacts = {
  ...ordinaryFlow,
  shapes: {
    ...likeC,
    ternary_expression: CONDITIONAL,
    for_statement: { is: "loop", first: "init", test: "condition", update: "update", body: "body" },
    enhanced_for_statement: { is: "each", over: "value", target: "name", body: "body" },
    switch_expression: (node) => ({
      is: "choice",
      value: "condition",
      ways: ["switch_block_statement_group", "switch_rule"],
      fallsThrough: node.child("body")?.parts.some((part) => part.is("switch_block_statement_group")) ?? true,
      breaks: true,
      exhaustive: !node.parent?.is(node.tree.language.statementLists),
      isDefault: (way) =>
        way.parts.some((part) => part.is("switch_label") && part.text.startsWith("default")),
    }),
    try_statement: { is: "try", handlers: ["catch_clause"], lastly: "finally_clause" },
    try_with_resources_statement: { is: "try", handlers: ["catch_clause"], lastly: "finally_clause" },
    yield_statement: jump("choice"),
    labeled_statement: { is: "label" },
    binary_expression: shortCircuits({ "&&": "true", "||": "false" }),
    unary_expression: (node) =>
      node.child("operator")?.kind === "!" ? { is: "negation", operators: ["!"] } : undefined,
  },
  assignments: {
    variable_declarator: { target: "name", value: "value" },
    assignment_expression: { target: "left", value: "right" },
    update_expression: { target: "identifier" },
    resource: { target: "name", value: "value" },
  },
  mayThrow: [
    "method_invocation",
    "object_creation_expression",
    "field_access",
    "array_access",
    "array_creation_expression",
    "cast_expression",
    "binary_expression",
    "enhanced_for_statement",
    "assert_statement",
    "update_expression",
  ],
  neverReturn: ["System.exit"],
  missing: {
    literals: ["null_literal"],
    equal: ["=="],
    unequal: ["!="],
    truthIsPresence: false,
    typeTests: ["instanceof"],
    present: ["Objects.nonNull"],
    missing: ["Objects.isNull"],
    held: ["isOpen"],
    givenBack: ["isClosed"],
    creations: [
      "object_creation_expression",
      "array_creation_expression",
      "string_literal",
      "lambda_expression",
      "array_initializer",
      "class_literal",
    ],
    readsThrow: true,
  },
};
