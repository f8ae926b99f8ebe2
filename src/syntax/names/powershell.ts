import { ordinaryNames, type NameFacts, type NameUse, type ScopeFacts, type Use } from "../name-facts.js";
import type { SyntaxNode } from "../node.js";
import { declaring } from "./uses.js";

const written = declaring("write", { as: "local", in: "function" });
const updated = declaring("update", { as: "local", in: "function" });
const parameter = declaring("write", { as: "parameter", in: "function" });
const call: NameUse = { does: "read", spaces: ["callable"] };

/** `$script:x` and the like reach another scope, so what they mean cannot be told from the code around. */
function variable(name: SyntaxNode): Use {
  return name.text.includes(":") ? "unknown" : { does: "read" };
}

const byScope = (use: NameUse) => (name: SyntaxNode) =>
  name.text.includes(":") ? ("unknown" as const) : use;

function bareText(text: string): string {
  return text
    .replace(/^\$\{?|\}$/g, "")
    .replace(/^(local|script|global|private|using|variable):/i, "")
    .toLowerCase();
}

const FUNCTION: ScopeFacts = { is: "function" };

/**
 * How names bind in PowerShell. Scope is dynamic: what is called sees the variables of its caller, so only what a
 * function assigns or takes as a parameter is known, and that never for certain.
 */
export const powershellNames: NameFacts = {
  ...ordinaryNames,
  leaves: {
    variable,
    braced_variable: variable,
    function_name: call,
    command_name: call,
  },
  groups: {
    left_assignment_expression: [],
    array_literal_expression: [],
    unary_expression: [],
    expression_with_unary_operator: [],
    cast_expression: [],
    variable: [],
  },
  uses: {
    assignment_expression: (name, target) => {
      if (!target.is("left_assignment_expression") && !target.parent!.firstPart!.same(target))
        return undefined;
      const operator = target.parent!.parts.find((part) => part.is("assignment_operator"))?.text;
      return byScope(operator === "=" ? written : updated)(name);
    },
    cast_expression: (name) =>
      /^\[(ref|management\.automation\.psreference)\]$/i.test(name.parent!.firstPart!.text)
        ? { does: "address" }
        : undefined,
    foreach_statement: (name) => (name.parent!.firstPart!.same(name) ? written : undefined),
    script_parameter: parameter,
    class_method_parameter: parameter,
    class_property_definition: declaring("declare", { as: "field", in: "class", spaces: ["member"] }),
    pre_increment_expression: byScope({ does: "update" }),
    post_increment_expression: byScope({ does: "update" }),
    pre_decrement_expression: byScope({ does: "update" }),
    post_decrement_expression: byScope({ does: "update" }),
    function_statement: (name) =>
      name.is("function_name")
        ? declaring("write", { as: "function", in: "here", spaces: ["callable"] })
        : undefined,
  },
  scopes: {
    program: { is: "file" },
    function_statement: { is: "function", outside: ["function_name"] },
    class_method_definition: FUNCTION,
    script_block_expression: FUNCTION,
    class_statement: { is: "class" },
  },
  dynamicScope: true,
  bare: (name) => bareText(name.text),
  bareText,
  runsInScope: {
    kinds: ["command_invocation_operator", "command_parameter"],
    is: ({ text }) => text === "." || /^-(\w*variable|[oewip]v):?$/i.test(text),
  },
  selfOf: (node) => (/^\$this$/i.test(node.text) ? node.closest(["class_statement"]) : undefined),
  implicit: (name) =>
    /^\$(_|args|input|this|null|true|false|psitem|error|matches|pwd|home|host)$/i.test(name.text),
  isPublic: () => true,
};
