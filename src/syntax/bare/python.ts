import type { Bare } from "../bare-facts.js";
import type { SyntaxNode } from "../node.js";

const ARITHMETIC = ["binary_operator", "comparison_operator", "unary_operator", "await"];
const SPLATS = ["list_splat", "dictionary_splat"];

/** An item of a list or a set is unpacked from what binds tighter than any comparison; an argument may be anything. */
const isArgument = (splat: SyntaxNode): boolean => splat.parent?.kind === "argument_list";

export const pythonBare: readonly Bare[] = [
  {
    kinds: ["yield"],
    only: [
      "expression_statement",
      "assignment",
      "augmented_assignment",
      "parenthesized_expression",
      "interpolation",
    ],
  },
  {
    kinds: ["named_expression"],
    only: [
      "parenthesized_expression",
      "argument_list",
      "list",
      "set",
      "tuple",
      "subscript",
      "if_statement",
      "elif_clause",
      "while_statement",
      "match_statement",
      "list_comprehension",
      "set_comprehension",
      "generator_expression",
      "interpolation",
    ],
  },
  {
    kinds: ["lambda"],
    never: [
      ...ARITHMETIC,
      ...SPLATS,
      "boolean_operator",
      "not_operator",
      "conditional_expression",
      "for_in_clause",
      "if_clause",
      "interpolation",
    ],
    // Behind `else`, nothing follows that could be taken for a part of it.
    except: (node, parent) =>
      (parent.kind === "conditional_expression" && node.end === parent.end) ||
      (parent.is(SPLATS) && isArgument(parent)),
  },
  { kinds: ["not_operator"], never: ARITHMETIC },
  {
    kinds: ["boolean_operator", "comparison_operator", "conditional_expression", "not_operator"],
    never: SPLATS,
    except: (_, parent) => isArgument(parent),
  },
  {
    kinds: ["conditional_expression"],
    never: ["conditional_expression"],
    except: (node, parent) => node.end === parent.end,
  },
  { kinds: ["await", "unary_operator"], never: ["await"] },
];
