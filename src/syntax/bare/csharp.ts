import type { Bare } from "../bare-facts.js";

export const csharpBare: readonly Bare[] = [
  {
    kinds: ["assignment_expression", "lambda_expression", "query_expression"],
    never: [
      "binary_expression",
      "prefix_unary_expression",
      "await_expression",
      "invocation_expression",
      "member_access_expression",
    ],
  },
];
