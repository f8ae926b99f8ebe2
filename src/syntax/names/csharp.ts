import type { SyntaxNode } from "../node.js";
import {
  ordinaryNames,
  type NameFacts,
  type NameUse,
  type ScopeFacts,
  type UseEntry,
} from "../name-facts.js";
import { firstOfItsName } from "./reopened.js";
import { argumentName, assigns, declaring, memberOfSomething, reads, updates } from "./uses.js";

const valueOrType: NameUse = { does: "read", spaces: ["value", "type"] };
const typeRead: NameUse = { does: "read", spaces: ["type"] };
const local = declaring("write", { as: "local", in: "here" });
const patternVariable = declaring("write", { as: "local", in: scopeOfPattern, onSomePaths: true });
const parameter = declaring("write", { as: "parameter", in: "here" });
const className = declaring("write", { as: "class", in: "here", spaces: ["type"] });
const method = declaring("write", { as: "method", in: "class" });
const field = declaring("declare", { as: "field", in: "class" });

const TYPES = [
  "class_declaration",
  "struct_declaration",
  "interface_declaration",
  "record_declaration",
  "enum_declaration",
];

const variable: UseEntry = (name) => {
  const declarator = name.closest(["variable_declarator"])!;
  const does = declarator.parts.length > 1 || declarator.has("=") ? "write" : "declare";
  const isField = declarator.parent?.parent?.is(["field_declaration", "event_field_declaration"]);
  return declaring(does, isField ? { as: "field", in: "class" } : { as: "local", in: "here" });
};

/** `Name = value` in braces behind `new` sets a property; in an attribute it names a parameter. */
const assignment: UseEntry = (name, target) => {
  const holder = target.parent?.parent;
  if (holder?.is(["initializer_expression", "with_initializer", "attribute_argument_list"])) {
    return { ...memberOfSomething, does: "write", spaces: ["value"] };
  }
  return assigns(name, target);
};

/** An argument with `ref` or `out` in front; what is taken by `in` is only read. */
const argument: UseEntry = (_name, target) =>
  target.parent!.has("ref") || target.parent!.has("out") ? { does: "address" } : undefined;

/** What the condition of an `if` declares is seen behind it as well. */
function scopeOfPattern(name: SyntaxNode): SyntaxNode | undefined {
  let at = name;
  for (const above of name.ancestors()) {
    const isCondition = above.is("if_statement") && at.field === "condition";
    if (csharpNames.scopes[above.kind] && !isCondition) return above;
    at = above;
  }
  return undefined;
}

/** The word of an accessor that is given a value. */
const setterWord = (accessor: SyntaxNode): SyntaxNode | undefined =>
  accessor.children.find((child) => /^(set|init|add|remove)$/.test(child.kind));

const FUNCTION: ScopeFacts = { is: "function", outside: ["name"] };
const TYPE: ScopeFacts = { is: "class", outside: ["name", "attribute_list"] };
const BLOCK: ScopeFacts = { is: "block" };

/** How names bind in C#. */
export const csharpNames: NameFacts = {
  ...ordinaryNames,
  typesAreKept: true,
  leaves: { identifier: valueOrType, implicit_parameter: parameter },
  groups: {
    parenthesized_expression: [],
    conditional_expression: ["consequence", "alternative"],
    tuple_pattern: [],
    tuple_expression: [],
    parenthesized_variable_designation: [],
  },
  uses: {
    "variable_declarator.name": variable,
    variable_declarator: (_name, target) => (target.is("tuple_pattern") ? local : undefined),
    "parameter.name": (name) =>
      name.parent?.parent?.parent?.is(TYPES) ? declaring("write", { as: "field", in: "class" }) : parameter,
    "parameter_list.name": parameter,
    "declaration_expression.name": patternVariable,
    "declaration_pattern.name": patternVariable,
    "recursive_pattern.name": patternVariable,
    "var_pattern.name": patternVariable,
    "list_pattern.name": patternVariable,
    "catch_declaration.name": local,
    "foreach_statement.left": (_name, target) => (target.parent!.child("type") ? local : { does: "write" }),
    "from_clause.name": local,
    let_clause: (name) => (name.parent!.firstPart!.same(name) ? local : undefined),
    join_clause: (name) => (name.parent!.firstPart!.same(name) ? local : undefined),
    join_into_clause: local,
    query_continuation: local,
    "class_declaration.name": className,
    "struct_declaration.name": className,
    "interface_declaration.name": className,
    "record_declaration.name": className,
    "enum_declaration.name": className,
    "delegate_declaration.name": className,
    "type_parameter.name": declaring("declare", { as: "type", in: "here", spaces: ["type"] }),
    type_parameter_constraints_clause: typeRead,
    "constructor_declaration.name": typeRead,
    "destructor_declaration.name": typeRead,
    "method_declaration.name": method,
    "local_function_statement.name": declaring("write", { as: "function", in: "here" }),
    "property_declaration.name": field,
    "event_declaration.name": field,
    "enum_member_declaration.name": declaring("write", { as: "field", in: "class" }),
    "namespace_declaration.name": "nothing",
    "file_scoped_namespace_declaration.name": "nothing",
    "qualified_name.qualifier": typeRead,
    "qualified_name.name": { does: "read", memberOf: "qualifier", spaces: ["type"] },
    "using_directive.name": declaring("write", { as: "import", in: "file", spaces: ["type"] }),
    using_directive: "nothing",
    "member_access_expression.expression": valueOrType,
    "member_access_expression.name": { does: "read", memberOf: "expression", spaces: ["value", "type"] },
    "member_binding_expression.name": memberOfSomething,
    subpattern: (name) => (name.parent!.firstPart!.same(name) ? memberOfSomething : undefined),
    anonymous_object_creation_expression: (name) => {
      const next = name.parent!.children.find((child) => child.start >= name.end);
      return next?.kind === "=" ? memberOfSomething : { ...reads, also: memberOfSomething };
    },
    tuple_element: "nothing",
    "argument.name": argumentName,
    argument,
    "assignment_expression.left": assignment,
    postfix_unary_expression: (_name, target) =>
      target.parent!.has("++") || target.parent!.has("--") ? updates : undefined,
    prefix_unary_expression: (_name, target) => {
      if (target.parent!.has("++") || target.parent!.has("--")) return updates;
      return target.parent!.has("&") ? { does: "address" } : undefined;
    },
    ref_expression: { does: "address" },
    labeled_statement: "nothing",
    goto_statement: "nothing",
    "attribute.name": "nothing",
    "name_colon.name": "nothing",
    base_list: typeRead,
    generic_name: valueOrType,
    type_argument_list: typeRead,
    "catch_declaration.type": typeRead,
    "explicit_interface_specifier.name": typeRead,
    ".type": typeRead,
    ".returns": typeRead,
  },
  scopes: {
    compilation_unit: { is: "file" },
    namespace_declaration: { is: "namespace", outside: ["name"] },
    class_declaration: TYPE,
    struct_declaration: TYPE,
    interface_declaration: TYPE,
    record_declaration: TYPE,
    enum_declaration: TYPE,
    delegate_declaration: FUNCTION,
    method_declaration: FUNCTION,
    constructor_declaration: FUNCTION,
    destructor_declaration: FUNCTION,
    operator_declaration: FUNCTION,
    conversion_operator_declaration: FUNCTION,
    indexer_declaration: FUNCTION,
    accessor_declaration: FUNCTION,
    local_function_statement: FUNCTION,
    lambda_expression: FUNCTION,
    anonymous_method_expression: FUNCTION,
    block: BLOCK,
    for_statement: BLOCK,
    foreach_statement: { is: "block", outside: ["right"] },
    using_statement: BLOCK,
    if_statement: BLOCK,
    while_statement: BLOCK,
    lock_statement: BLOCK,
    fixed_statement: BLOCK,
    catch_clause: BLOCK,
    switch_body: BLOCK,
    switch_section: BLOCK,
    switch_expression_arm: BLOCK,
    query_expression: BLOCK,
    property_declaration: BLOCK,
  },
  selfOf: (node) => (node.kind === "this" ? node.closest(TYPES) : undefined),
  implicit: (name) => (name.text === "nameof" && name.field === "function") || name.text === "_",
  implied(name) {
    if (name.text !== "value") return undefined;
    const accessor = name.closest(["accessor_declaration", ...TYPES]);
    return accessor?.is("accessor_declaration") ? setterWord(accessor) : undefined;
  },
  impliedType: (word) =>
    word.parent?.is("accessor_declaration")
      ? word.closest(["property_declaration", "indexer_declaration", "event_declaration"])?.child("type")
      : undefined,
  isReference(declared) {
    const at = declared.closest(["parameter", "variable_declaration", "foreach_statement"]);
    return at?.is("parameter")
      ? at.children.some((child) => child.is("modifier") && /^(ref|out|in)$/.test(child.text))
      : at?.child("type")?.is("ref_type") === true;
  },
  bareMembers: true,
  parentsOf: (scope) =>
    scope.children.filter(
      (child) => child.is("base_list") || (child.is("modifier") && child.text === "partial"),
    ),
  reopened: (scope) => firstOfItsName(scope, ["namespace_declaration"]),
  renamed: (node, newName) => {
    const named = node.parent?.is("anonymous_object_creation_expression") ?? false;
    return { node, text: named ? `${node.text} = ${newName}` : newName };
  },
  isPublic(name, as) {
    if (as === "local" || as === "parameter") return false;
    const declaration = name.closest([
      "field_declaration",
      "method_declaration",
      "property_declaration",
      "event_field_declaration",
      "event_declaration",
      "local_function_statement",
      "enum_member_declaration",
      "delegate_declaration",
      ...TYPES,
    ]);
    if (!declaration || declaration.is("local_function_statement")) return false;
    if (declaration.parent?.parent?.is(["interface_declaration", "enum_declaration"])) return true;
    const modifiers = declaration.parts.filter((part) => part.is("modifier")).map((part) => part.text);
    if (modifiers.includes("private")) return false;
    const isOpen = ["public", "protected", "internal"].some((modifier) => modifiers.includes(modifier));
    return isOpen || declaration.is(TYPES) || as === "import";
  },
};
