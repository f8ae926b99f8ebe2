import {
  ordinaryNames,
  type NameFacts,
  type NameUse,
  type ScopeFacts,
  type UseEntry,
} from "../name-facts.js";
import { assigns, declaring, memberOfSomething, reads, updates } from "./uses.js";

const valueOrType: NameUse = { does: "read", spaces: ["value", "type"] };
const typeRead: NameUse = { does: "read", spaces: ["type"] };
const parameter = declaring("write", { as: "parameter", in: "here" });
const local = declaring("write", { as: "local", in: "here", fromHere: true });
const patternVariable = declaring("write", { as: "local", in: "here", fromHere: true, onSomePaths: true });
const className = declaring("write", { as: "class", in: "here", spaces: ["type"] });
const method = declaring("declare", { as: "method", in: "class", spaces: ["callable"] });

const variable: UseEntry = (name) => {
  const declarator = name.parent!;
  const does = declarator.child("value") ? "write" : "declare";
  switch (declarator.parent?.kind) {
    case "field_declaration":
    case "constant_declaration":
      return declaring(does, { as: "field", in: "class" });
    case "spread_parameter":
      return parameter;
    default:
      return declaring(does, { as: "local", in: "here", fromHere: true });
  }
};

const FUNCTION: ScopeFacts = { is: "function", outside: ["name"] };
const BLOCK: ScopeFacts = { is: "block" };
/** Holds the type parameters; the members live in the body. */
const HEAD: ScopeFacts = { is: "block", outside: ["name", "modifiers"] };
const BODY: ScopeFacts = { is: "class" };

/** How names bind in Java. */
export const javaNames: NameFacts = {
  ...ordinaryNames,
  typesAreKept: true,
  leaves: { identifier: reads, type_identifier: typeRead },
  groups: { parenthesized_expression: [] },
  uses: {
    "variable_declarator.name": variable,
    "formal_parameter.name": (name) =>
      name.parent?.parent?.parent?.is("record_declaration")
        ? declaring("write", { as: "field", in: "here" })
        : parameter,
    "catch_formal_parameter.name": local,
    inferred_parameters: parameter,
    "lambda_expression.parameters": parameter,
    "enhanced_for_statement.name": local,
    "resource.name": local,
    "instanceof_expression.name": patternVariable,
    type_pattern: patternVariable,
    record_pattern_component: patternVariable,
    record_pattern: typeRead,
    "class_declaration.name": className,
    "interface_declaration.name": className,
    "enum_declaration.name": className,
    "record_declaration.name": className,
    "annotation_type_declaration.name": className,
    type_parameter: declaring("declare", { as: "type", in: "here", spaces: ["type"] }),
    "constructor_declaration.name": typeRead,
    "compact_constructor_declaration.name": typeRead,
    "method_declaration.name": method,
    "annotation_type_element_declaration.name": method,
    "enum_constant.name": declaring("write", { as: "field", in: "here" }),
    "assignment_expression.left": assigns,
    update_expression: updates,
    "method_invocation.name": (name) =>
      name.parent?.child("object")
        ? { does: "read", spaces: ["callable"], memberOf: "object" }
        : { does: "read", spaces: ["callable"] },
    "method_invocation.object": valueOrType,
    "field_access.object": valueOrType,
    "field_access.field": { does: "read", spaces: ["value", "type"], memberOf: "object" },
    method_reference: (name) =>
      name.parent!.firstPart!.same(name)
        ? valueOrType
        : { does: "read", spaces: ["callable"], memberOf: "first" },
    scoped_type_identifier: (name) => (name.parent!.firstPart!.same(name) ? typeRead : memberOfSomething),
    "scoped_identifier.name": (name) => {
      const holder = name.parent?.parent;
      if (!holder?.is("import_declaration")) return "nothing";
      if (holder.parts.some((part) => part.is("asterisk"))) return "nothing";
      const spaces = holder.has("static") ? (["value", "callable", "type"] as const) : (["type"] as const);
      return declaring("write", { as: "import", in: "file", spaces });
    },
    scoped_identifier: "nothing",
    import_declaration: "nothing",
    package_declaration: "nothing",
    labeled_statement: "nothing",
    break_statement: "nothing",
    continue_statement: "nothing",
    switch_label: memberOfSomething,
    "annotation.name": typeRead,
    "marker_annotation.name": typeRead,
    "element_value_pair.key": "nothing",
  },
  scopes: {
    program: { is: "file" },
    class_declaration: HEAD,
    interface_declaration: HEAD,
    enum_declaration: HEAD,
    record_declaration: HEAD,
    class_body: BODY,
    interface_body: BODY,
    enum_body: BODY,
    annotation_type_body: BODY,
    method_declaration: FUNCTION,
    constructor_declaration: FUNCTION,
    compact_constructor_declaration: FUNCTION,
    static_initializer: FUNCTION,
    lambda_expression: { is: "function" },
    block: BLOCK,
    constructor_body: BLOCK,
    for_statement: BLOCK,
    enhanced_for_statement: { is: "block", outside: ["value"] },
    try_with_resources_statement: { is: "block", outside: ["catch_clause", "finally_clause"] },
    catch_clause: BLOCK,
    switch_block: BLOCK,
    switch_rule: BLOCK,
  },
  selfOf(node) {
    if (!node.is("this")) return undefined;
    return node.closest(["class_body", "enum_body", "interface_body"]);
  },
  bareMembers: true,
  parentsOf(body) {
    const owner = body.parent;
    if (!owner) return [];
    if (owner.is("object_creation_expression")) return owner.child("type") ? [owner.child("type")!] : [];
    if (owner.is("enum_constant")) return owner.child("name") ? [owner.child("name")!] : [];
    return owner.children.filter((child) =>
      child.is(["superclass", "super_interfaces", "extends_interfaces"]),
    );
  },
  isPublic(name, as) {
    if (as === "local" || as === "parameter") return false;
    const declaration = name.closest([
      "field_declaration",
      "method_declaration",
      "class_declaration",
      "interface_declaration",
      "enum_declaration",
      "record_declaration",
    ]);
    return !declaration?.parts.some((part) => part.is("modifiers") && part.has("private"));
  },
};
