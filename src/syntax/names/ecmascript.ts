import {
  ordinaryNames,
  type Declares,
  type NameFacts,
  type NameUse,
  type ScopeFacts,
} from "../name-facts.js";
import type { UseEntry } from "../name-facts.js";
import type { SyntaxNode } from "../node.js";
import { firstOfItsName } from "./reopened.js";

const member: NameUse = { does: "read", memberOf: "" };
const writes: NameUse = { does: "write" };
const updates: NameUse = { does: "update" };
const declares = (does: NameUse["does"], what: Declares): NameUse => ({ does, declares: what });
const inBlock = (name: SyntaxNode): NameUse =>
  declares(hasValue(name) ? "write" : "declare", { as: "local", in: "here" });
const parameter = declares("write", { as: "parameter", in: "here" });
const imported = declares("write", { as: "import", in: "here", spaces: ["value", "type"] });
const typeParameter = declares("declare", { as: "type", in: "here", spaces: ["type"] });
const typeName = typeParameter;
const className = declares("write", { as: "class", in: "here", spaces: ["value", "type"] });
const functionName = declares("write", { as: "function", in: "here" });
const field = declares("declare", { as: "field", in: "class", spaces: ["member"] });
const method = declares("declare", { as: "method", in: "class", spaces: ["member"] });
const enumMember = declares("write", { as: "field", in: "here", spaces: ["value", "member"] });
const namespace = declares("write", { as: "namespace", in: "here", spaces: ["value", "type"] });

function hasValue(name: SyntaxNode): boolean {
  return name.closest(["variable_declarator"])?.child("value") !== undefined;
}

const variable: UseEntry = (name, target) => {
  if (!target.parent?.parent?.is("variable_declaration")) return inBlock(name);
  return declares(hasValue(name) ? "write" : "declare", { as: "local", in: "function" });
};

const loopVariable: UseEntry = (_name, { parent }) => {
  const kind = parent?.child("kind")?.kind;
  if (kind === undefined) return writes;
  return declares("write", { as: "local", in: kind === "var" ? "function" : "here" });
};

/** A parameter that is a field too, as `private` and `readonly` make it. */
const typedParameter: UseEntry = (_name, { parent }) => {
  if (parent?.parent?.is("tuple_type")) return "nothing";
  const makesField =
    parent?.children.some((child) => child.is(["accessibility_modifier", "readonly", "override_modifier"])) ??
    false;
  return makesField ? { ...parameter, also: field } : parameter;
};

const NAMESPACES = ["internal_module", "module"];
const FUNCTION: ScopeFacts = { is: "function" };
const NAMED_FUNCTION: ScopeFacts = { is: "function", outside: ["name"] };
const BLOCK: ScopeFacts = { is: "block" };

/** How names bind in JavaScript and TypeScript. */
export const ecmascriptNames: NameFacts = {
  ...ordinaryNames,
  leaves: {
    identifier: { does: "read" },
    shorthand_property_identifier: { does: "read", also: member },
    shorthand_property_identifier_pattern: { ...writes, also: member },
    property_identifier: member,
    private_property_identifier: { does: "read", spaces: ["member"] },
    type_identifier: { does: "read", spaces: ["type"] },
  },
  groups: {
    array_pattern: [],
    object_pattern: [],
    rest_pattern: [],
    assignment_pattern: ["left"],
    object_assignment_pattern: ["left"],
    pair_pattern: ["value"],
    parenthesized_expression: [],
    non_null_expression: [],
    as_expression: [],
  },
  uses: {
    "variable_declarator.name": variable,
    "for_in_statement.left": loopVariable,
    "assignment_expression.left": withMember(writes),
    "augmented_assignment_expression.left": updates,
    "update_expression.argument": updates,
    "unary_expression.argument": (_name, target) =>
      target.parent!.child("operator")?.kind === "delete" ? updates : undefined,
    "function_declaration.name": functionName,
    "generator_function_declaration.name": functionName,
    "function_signature.name": functionName,
    "function_expression.name": functionName,
    "generator_function.name": functionName,
    formal_parameters: withMember(parameter),
    "required_parameter.pattern": typedParameter,
    "required_parameter.name": typedParameter,
    "optional_parameter.pattern": typedParameter,
    "optional_parameter.name": typedParameter,
    "arrow_function.parameter": parameter,
    "catch_clause.parameter": withMember(declares("write", { as: "local", in: "here" })),
    "class_declaration.name": className,
    "abstract_class_declaration.name": className,
    "class.name": className,
    "enum_declaration.name": className,
    "enum_assignment.name": enumMember,
    "enum_body.name": enumMember,
    "internal_module.name": namespace,
    "nested_identifier.object": (name) =>
      name.parent?.field === "name" && name.parent.parent?.is(["internal_module", "module"])
        ? namespace
        : { does: "read" },
    "interface_declaration.name": typeName,
    "type_alias_declaration.name": typeName,
    "type_parameter.name": typeParameter,
    "mapped_type_clause.name": typeParameter,
    infer_type: declares("declare", {
      as: "type",
      in: (name) => name.closest(["conditional_type"]),
      spaces: ["type"],
    }),
    "index_signature.name": parameter,
    "nested_type_identifier.name": member,
    "method_definition.name": (name) =>
      name.parent?.parent?.is("class_body") && name.text !== "constructor" ? method : member,
    "method_signature.name": method,
    "abstract_method_signature.name": method,
    "property_signature.name": field,
    "field_definition.property": field,
    "public_field_definition.name": field,
    "member_expression.property": { does: "read", memberOf: "object" },
    import_clause: imported,
    namespace_import: imported,
    import_require_clause: imported,
    import_alias: imported,
    "import_specifier.name": (name) => (name.parent?.child("alias") ? "nothing" : imported),
    "import_specifier.alias": imported,
    "export_specifier.name": (name) =>
      name.closest(["export_statement"])?.child("source")
        ? "nothing"
        : { does: "read", spaces: ["value", "type"] },
    "export_specifier.alias": "nothing",
    namespace_export: "nothing",
    "export_statement.value": { does: "read", spaces: ["value", "type"] },
    export_statement: (name) =>
      name.parent?.has("namespace") ? "nothing" : { does: "read", spaces: ["value", "type"] },
    jsx_attribute: "nothing",
    "jsx_opening_element.name": tagName,
    "jsx_closing_element.name": tagName,
    "jsx_self_closing_element.name": tagName,
    jsx_namespace_name: "nothing",
    meta_property: "nothing",
  },
  scopes: {
    program: { is: "file" },
    function_declaration: NAMED_FUNCTION,
    generator_function_declaration: NAMED_FUNCTION,
    function_signature: NAMED_FUNCTION,
    function_expression: FUNCTION,
    generator_function: FUNCTION,
    arrow_function: FUNCTION,
    method_definition: { is: "function", outside: ["name", "decorator"] },
    method_signature: NAMED_FUNCTION,
    abstract_method_signature: NAMED_FUNCTION,
    call_signature: FUNCTION,
    construct_signature: FUNCTION,
    function_type: FUNCTION,
    constructor_type: FUNCTION,
    class_static_block: FUNCTION,
    class_declaration: { is: "class", outside: ["name", "decorator"] },
    abstract_class_declaration: { is: "class", outside: ["name", "decorator"] },
    class: { is: "class", outside: ["decorator"] },
    interface_declaration: { is: "class", outside: ["name"] },
    object_type: { is: "class" },
    enum_body: BLOCK,
    type_alias_declaration: { is: "block", outside: ["name"] },
    conditional_type: BLOCK,
    index_signature: BLOCK,
    internal_module: { is: "namespace", outside: ["name"] },
    module: { is: "namespace", outside: ["name"] },
    statement_block: BLOCK,
    for_statement: BLOCK,
    for_in_statement: { is: "block" },
    catch_clause: BLOCK,
    with_statement: BLOCK,
    switch_body: BLOCK,
  },
  parameterLists: ["formal_parameters"],
  objectScopes: ["with_statement"],
  parametersIn: "arguments",
  oneForAll: ["value", "type"],
  assignedMembers: true,
  selfOf,
  paired: ["jsx_opening_element", "jsx_closing_element"],
  renamed: (node, newName) => ({ node, text: spelledAs(node, newName) }),
  // The block of a namespace is the namespace.
  reopened: (scope) => firstOfItsName(isNamespace(scope.parent) ? scope.parent : scope, NAMESPACES),
  parentsOf: (scope) => scope.children.filter((child) => child.is("class_heritage")),
  isPublic,
};

/** A pattern that names a property too. */
function withMember(use: NameUse): UseEntry {
  return (name) => (name.is("shorthand_property_identifier_pattern") ? { ...use, also: member } : use);
}

function tagName(name: SyntaxNode): NameUse | "nothing" {
  return /^[a-z]/.test(name.text) ? "nothing" : { does: "read" };
}

/** Short forms name two things at once; the one that is not renamed is written out. */
function spelledAs(use: SyntaxNode, newName: string): string {
  const { parent } = use;
  if (use.is(["shorthand_property_identifier", "shorthand_property_identifier_pattern"])) {
    return `${use.text}: ${newName}`;
  }
  if (parent?.is("import_specifier") && !parent.child("alias")) return `${use.text} as ${newName}`;
  if (parent?.is("export_specifier") && !parent.child("alias")) return `${newName} as ${use.text}`;
  return newName;
}

function isNamespace(node: SyntaxNode | undefined): node is SyntaxNode {
  return node?.is(NAMESPACES) ?? false;
}

/** Functions that have a `this` of their own. */
const OWN_THIS = [
  "function_declaration",
  "function_expression",
  "generator_function",
  "generator_function_declaration",
  "method_definition",
];

function selfOf(node: SyntaxNode): SyntaxNode | undefined {
  if (!node.is("this")) return undefined;
  let child = node;
  for (const above of node.ancestors()) {
    if (above.is("class_body"))
      return child.has("static") || child.is("class_static_block") ? undefined : above.parent;
    if (above.is(OWN_THIS) && !above.parent?.is("class_body")) return undefined;
    child = above;
  }
  return undefined;
}

function isPublic(name: SyntaxNode, as: Declares["as"]): boolean {
  if (as === "field" || as === "method") {
    if (name.is("private_property_identifier")) return false;
    return !name.parent?.children.some(
      (child) => child.is("accessibility_modifier") && child.text === "private",
    );
  }
  if (as === "parameter") return false;
  for (const above of name.ancestors()) {
    if (above.is("statement_block")) break;
    if (above.is("export_statement")) return true;
  }
  const isModule = name.tree.root.parts.some((part) => part.is(["import_statement", "export_statement"]));
  return !isModule && !name.closest(["statement_block", "class_body"]);
}
