import type { Bare } from "../bare-facts.js";
import type { SyntaxNode } from "../node.js";

const OPERANDS = [
  "binary_expression",
  "unary_expression",
  "await_expression",
  "call_expression",
  "member_expression",
  "class_heritage",
];

/** Does a power have this on its left? There a sign could belong to either. */
const isRaised = (node: SyntaxNode, parent: SyntaxNode): boolean =>
  parent.has("**") && parent.start === node.start;

/** Does a statement begin with this? Then it is read as a declaration or a block. */
function beginsStatement(node: SyntaxNode): boolean {
  let at: SyntaxNode | undefined = node.parent;
  while (at && at.start === node.start && at.kind !== "expression_statement") at = at.parent;
  return at?.kind === "expression_statement" && at.start === node.start;
}

/** What binds looser than any operator with two sides. */
const LOOSE = [
  "arrow_function",
  "yield_expression",
  "assignment_expression",
  "augmented_assignment_expression",
  "ternary_expression",
];

export const ecmascriptBare: readonly Bare[] = [
  { kinds: LOOSE, never: OPERANDS },
  { kinds: ["arrow_function"], never: ["new_expression"] },
  // What stands in brackets is held together by them.
  {
    kinds: LOOSE,
    never: ["subscript_expression"],
    except: (node, parent) => node.start !== parent.start,
  },
  {
    kinds: ["arrow_function", "yield_expression"],
    never: ["ternary_expression"],
    except: (node, parent) => node.start !== parent.start,
  },
  {
    kinds: ["binary_expression", "unary_expression", "await_expression", "update_expression"],
    never: ["class_heritage"],
  },
  {
    kinds: ["unary_expression", "await_expression"],
    never: ["binary_expression"],
    except: (node, parent) => !isRaised(node, parent),
  },
  {
    kinds: ["update_expression"],
    never: ["call_expression", "member_expression", "subscript_expression"],
    except: (node, parent) => node.start !== parent.start,
  },
  { kinds: ["sequence_expression"], never: ["for_in_statement"], except: (_, parent) => parent.has("in") },
  {
    kinds: ["function_expression", "generator_function", "class", "object"],
    which: beginsStatement,
    only: [],
  },
];
