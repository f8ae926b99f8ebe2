import {
  ordinaryNames,
  type NameFacts,
  type NameUse,
  type ScopeFacts,
  type UseEntry,
} from "../name-facts.js";
import type { SyntaxNode } from "../node.js";
import { firstOfItsName } from "./reopened.js";
import { argumentName, declaring, reads } from "./uses.js";

const assigned = declaring("write", { as: "local", in: "here", fromHere: true, ifNew: true });
const updated = declaring("update", { as: "local", in: "here", fromHere: true, ifNew: true });
const parameter = declaring("write", { as: "parameter", in: "here", fromHere: true });
const method = declaring("write", { as: "method", in: "class", spaces: ["callable"] });
const variableOrCall: NameUse = { does: "read", spaces: ["value", "callable"] };
const call: NameUse = { does: "read", spaces: ["callable"] };
const constant: NameUse = { does: "read", spaces: ["constant"] };
const constantName = declaring("write", { as: "class", in: "here", spaces: ["constant"] });

/** By what a leaf looks like: `x`, `X`, `@x`, `@@x`, `$x`. */
function assignedAs(does: "write" | "update"): UseEntry {
  return (name) => {
    if (name.is("identifier")) return does === "write" ? assigned : updated;
    if (name.is("constant")) return declaring(does, { as: "constant", in: "class", spaces: ["constant"] });
    if (name.is("global_variable")) return declaring(does, { as: "local", in: "file" });
    return declaring(does, { as: "field", in: "class", spaces: ["member"] });
  };
}

/** `{ x: }` reads x, `in { x: }` assigns it; with a value behind, the symbol is only a key. */
function symbol(name: SyntaxNode): NameUse | "nothing" {
  if (!name.parent?.is(["pair", "keyword_pattern"])) return "nothing";
  if (name.parent.child("value")) return name.parent.is("pair") ? argumentName : "nothing";
  return name.parent.is("pair") ? variableOrCall : assigned;
}

const METHOD: ScopeFacts = { is: "function", outside: ["name", "object"], closed: true };
const CLASS: ScopeFacts = { is: "class", outside: ["name", "superclass"], closed: true };
const BLOCK: ScopeFacts = { is: "function" };

/** How names bind in Ruby. Blocks see the locals around them, methods and classes do not. */
export const rubyNames: NameFacts = {
  ...ordinaryNames,
  leaves: {
    identifier: variableOrCall,
    constant,
    instance_variable: { does: "read", spaces: ["member"] },
    class_variable: { does: "read", spaces: ["member"] },
    global_variable: { does: "read" },
    hash_key_symbol: symbol,
  },
  groups: {
    left_assignment_list: [],
    destructured_left_assignment: [],
    rest_assignment: [],
    destructured_parameter: [],
  },
  uses: {
    "assignment.left": assignedAs("write"),
    "operator_assignment.left": assignedAs("update"),
    "for.pattern": assigned,
    exception_variable: assignedAs("write"),
    method_parameters: parameter,
    block_parameters: parameter,
    lambda_parameters: parameter,
    "optional_parameter.name": parameter,
    "keyword_parameter.name": parameter,
    "splat_parameter.name": patternOrParameter,
    "hash_splat_parameter.name": patternOrParameter,
    "block_parameter.name": parameter,
    array_pattern: (name) => (name.is("identifier") ? assigned : undefined),
    find_pattern: (name) => (name.is("identifier") ? assigned : undefined),
    "as_pattern.name": assigned,
    "keyword_pattern.value": (name) => (name.is("identifier") ? assigned : undefined),
    "in_clause.pattern": (name) => (name.is("identifier") ? assigned : undefined),
    "variable_reference_pattern.name": reads,
    "method.name": method,
    "singleton_method.name": method,
    "class.name": constantName,
    "module.name": constantName,
    "call.method": (name) =>
      name.parent!.child("receiver")
        ? { does: "read", memberOf: "receiver", spaces: ["callable", "constant"] }
        : name.is("constant")
          ? { does: "read", spaces: ["callable"] }
          : call,
    "scope_resolution.name": (name) =>
      name.parent!.child("scope")
        ? { does: "read", memberOf: "scope", spaces: ["constant"] }
        : { ...constant, memberOf: "" },
    "alias.name": call,
    "alias.alias": call,
    undef: call,
  },
  scopes: {
    program: { is: "file" },
    method: METHOD,
    singleton_method: METHOD,
    class: CLASS,
    module: CLASS,
    singleton_class: { is: "class", outside: ["value"], closed: true },
    block: BLOCK,
    do_block: BLOCK,
    lambda: BLOCK,
  },
  selfOf(node) {
    if (!node.is("self")) return undefined;
    for (const above of node.ancestors()) if (above.is(["class", "module"])) return rubyNames.reopened(above);
    return undefined;
  },
  bareMembers: true,
  parentsOf: (scope) => {
    const mixins =
      scope.child("body")?.children.filter((child) => /^(include|extend|prepend)\b/.test(child.text)) ?? [];
    return [...(scope.child("superclass") ? [scope.child("superclass")!] : []), ...mixins];
  },
  reopened: (scope) => firstOfItsName(scope, ["class", "module"]),
  hides(name, tree) {
    if (!tree.text.includes(`(?<${name}>`)) return undefined;
    const nodes = tree.ofKinds(["regex"]).map((id) => tree.node(id));
    return nodes.find((node) => node.text.includes(`(?<${name}>`));
  },
  implicit: (name) =>
    /^(_\d|it)$/.test(name.text) && name.closest(["block", "do_block", "lambda"]) !== undefined,
  renamed: (node, newName) =>
    node.is("hash_key_symbol")
      ? { node: node.parent!, text: `${node.text}: ${newName}` }
      : { node, text: newName },
  handsOnParameters: ["super"],
  isPublic: (name, as) => name.is("global_variable") || (as !== "local" && as !== "parameter"),
};

function patternOrParameter(name: SyntaxNode): NameUse {
  return name.parent?.parent?.is(["array_pattern", "find_pattern", "hash_pattern"]) ? assigned : parameter;
}
