import { ordinaryMissing, jump, ordinaryFlow, type FlowFacts } from "../flow-facts.js";

const LOGICAL = { "-and": "true", "-or": "false" } as const;

/** How control moves in PowerShell. */
export const powershellFlow: FlowFacts = {
  ...ordinaryFlow,
  shapes: {
    if_statement: {
      is: "branch",
      test: "condition",
      then: "statement_block",
      otherwise: "elseif_clauses|else_clause",
    },
    elseif_clause: { is: "branch", test: "condition", then: "statement_block" },
    while_statement: { is: "loop", test: "condition", body: "statement_block" },
    do_statement: (node) => ({
      is: "loop",
      test: "condition",
      body: "statement_block",
      bodyFirst: true,
      negated: node.has("until"),
    }),
    for_statement: {
      is: "loop",
      first: "for_initializer",
      test: "for_condition",
      update: "for_iterator",
      body: "statement_block",
    },
    foreach_statement: { is: "each", over: 1, target: 0, body: "statement_block" },
    switch_statement: {
      is: "choice",
      value: "switch_condition",
      ways: ["switch_clause"],
      breaks: true,
      fallsThrough: true,
      isDefault: (way) => /^default\b/i.test(way.text),
    },
    try_statement: { is: "try", handlers: ["catch_clause"], lastly: "finally_clause" },
    trap_statement: jump("anywhere"),
    flow_control_statement(node) {
      const word = /^\w+/.exec(node.text)?.[0].toLowerCase();
      if (word === "break" || word === "continue")
        return node.parts.length > 0 ? jump("anywhere") : jump(word);
      return jump(word === "return" ? "return" : "throw");
    },
    logical_expression: (node) =>
      node.parts.length === 2 ? { is: "shortCircuit", left: 0, right: 1, runsIf: LOGICAL } : undefined,
    null_coalesce_expression: { is: "shortCircuit", left: 0, right: 1, runsIf: { "??": "missing" } },
    expression_with_unary_operator: (node) =>
      /^(!|-not\b)/i.test(node.text) ? { is: "negation", operators: ["!", "-not"] } : undefined,
    ternary_expression: { is: "branch", test: "0", then: "1", otherwise: "2" },
    // `a && b`; of more than two, all behind the first may not run.
    pipeline: (node) =>
      node.parts[1]?.is("pipeline_chain_tail")
        ? { is: "shortCircuit", left: 0, right: 2, runsIf: { "": "true" } }
        : undefined,
  },
  // What `break` in the block of `ForEach-Object` leaves is the loop around, or the script; `exit` the script.
  leavesBlocks: (jump) => (/^(break|continue|exit)\b/i.test(jump.text) ? ["script_block_expression"] : []),
  negation: "-not ",
  neverReturn: ["[Environment]::Exit", "[System.Environment]::Exit"],
  wrappers: ["else_clause", "statement_block", "script_block", "script_block_body"],
  assignments: { assignment_expression: { target: "variable", value: "value" } },
  mayThrow: ["command", "invocation_expression", "member_access", "element_access", "cast_expression"],
  counting: { ...ordinaryFlow.counting, lengthMembers: ["Count", "Length"] },
  missing: {
    ...ordinaryMissing,
    leftDecides: true,
    literals: ["$null"],
    equal: ["-eq"],
    unequal: ["-ne"],
    keys: {
      ContainsKey: { collection: "receiver", key: 0 },
      Contains: { collection: "receiver", key: 0 },
    },
    truthIsPresence: true,
    typeTests: [],
    present: [],
    missing: [],
    givenBack: ["IsClosed"],
    creations: [],
    readsThrow: false,
  },
  label: () => undefined,
};
