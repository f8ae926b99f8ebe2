import {
  ordinaryNames,
  type NameFacts,
  type NameUse,
  type ScopeFacts,
  type UseEntry,
  type UseFunction,
} from "../name-facts.js";
import type { SyntaxNode } from "../node.js";
import { argumentName, declaring, passes, updates } from "./uses.js";

const written = declaring("write", { as: "local", in: "function" });
const updated = declaring("update", { as: "local", in: "function" });
const aliased = declaring("address", { as: "local", in: "function" });
const parameter = declaring("write", { as: "parameter", in: "here" });
const typeRead: NameUse = { does: "read", spaces: ["type"] };
const className = declaring("write", { as: "class", in: "file", spaces: ["type"] });
const field = declaring("declare", { as: "field", in: "class", spaces: ["member"] });
const imported = declaring("write", { as: "import", in: "file", spaces: ["type", "callable", "constant"] });
const memberRead = (memberOf: string, spaces: NameUse["spaces"]): NameUse => ({
  does: "read",
  memberOf,
  spaces: spaces!,
});

/** `$x` is a variable; a bare name is a constant until its place says otherwise. */
function usual(name: SyntaxNode): NameUse {
  const isVariable = name.parent?.is(["variable_name", "dynamic_variable_name"]) ?? false;
  return isVariable ? { does: "read" } : { does: "read", spaces: ["constant"] };
}

/** What `foreach` runs over comes first, what it assigns to comes after. */
const loopVariable: UseFunction = (name, target) => {
  const loop = target.parent!;
  if (loop.firstPart!.same(target)) return hasReference(loop.parts[1]) ? updated : undefined;
  return name.parent?.parent?.is("by_ref") ? aliased : written;
};

const promoted: NameUse = { ...parameter, also: field };

const captured: UseEntry = (name) => {
  const byReference = name.parent?.parent?.is("by_ref");
  const does = byReference ? "address" : "read";
  return { ...parameter, also: { does, outer: true } };
};

const isByReference = (parameter: SyntaxNode): boolean => parameter.child("reference_modifier") !== undefined;

/** Does what a list is taken apart into, or a loop's variable, refer to the items themselves? */
function hasReference(target: SyntaxNode | undefined): boolean {
  return target?.is("by_ref") === true || (target?.is(GROUPS) === true && target.parts.some(hasReference));
}

/** Arrays are values: what is done to an item is done to the variable. */
const itemOf: UseFunction = (name, target) => {
  let at = target.parent!;
  if (!at.firstPart!.same(target)) return undefined;
  while (
    at.parent?.is(["subscript_expression", ...GROUPS]) &&
    (at.parent.firstPart!.same(at) || at.parent.is(GROUPS))
  )
    at = at.parent;
  const above = at.parent!;
  if (above.is("reference_assignment_expression") || at.is("by_ref")) return { does: "address" };
  if (above.is(["arguments", "argument"])) return passes;
  const isTarget =
    above.is(["unset_statement", "update_expression"]) ||
    (above.is("foreach_statement") && !above.firstPart!.same(at)) ||
    (above.is(["assignment_expression", "augmented_assignment_expression"]) && at.field === "left");
  return isTarget && !isObject(name) ? updated : undefined;
};

/** Is this a parameter that is declared to be an object, which stays the same whatever its `[]` does? */
function isObject(name: SyntaxNode): boolean {
  const list = name.closest(["function_definition", "method_declaration"])?.child("parameters");
  const parameter = list?.parts.find((part) => part.child("name")?.text === name.parent!.text);
  return parameter?.child("type")?.is("named_type") === true;
}

/** `&$x` in a list. */
const referred: UseEntry = (name, target) => (target.is("by_ref") ? { does: "address" } : undefined);

/** Classes are named in many places by a bare name. */
const classNamed: UseEntry = (name) => (name.parent!.is("variable_name") ? undefined : typeRead);

const GROUPS = ["list_literal", "by_ref", "pair", "parenthesized_expression"];

const TYPE: ScopeFacts = { is: "class", outside: ["name"] };
const FUNCTION: ScopeFacts = { is: "function", outside: ["name"], closed: true };

/** How names bind in PHP. */
export const phpNames: NameFacts = {
  ...ordinaryNames,
  leaves: { name: usual },
  groups: { variable_name: [], list_literal: [], by_ref: [], pair: [], parenthesized_expression: [] },
  uses: {
    "assignment_expression.left": written,
    "assignment_expression.right": (_name, target) =>
      hasReference(target.parent!.child("left")) ? { does: "address" } : undefined,
    subscript_expression: itemOf,
    "augmented_assignment_expression.left": updated,
    "update_expression.argument": updates,
    "reference_assignment_expression.left": aliased,
    "reference_assignment_expression.right": { does: "address" },
    foreach_statement: loopVariable,
    "simple_parameter.name": parameter,
    "variadic_parameter.name": parameter,
    "property_promotion_parameter.name": promoted,
    "catch_clause.name": written,
    "static_variable_declaration.name": written,
    global_declaration: declaring("declare", { as: "local", in: "function", sharedWith: "file" }),
    unset_statement: written,
    array_element_initializer: referred,
    array_creation_expression: referred,
    anonymous_function_use_clause: captured,
    arguments: (name) => (name.parent!.is("variable_name") ? passes : undefined),
    argument: (name, target) =>
      name.parent!.is("variable_name") && target.field !== "name" ? passes : undefined,
    "argument.name": argumentName,
    "function_definition.name": declaring("write", { as: "function", in: "file", spaces: ["callable"] }),
    "function_call_expression.function": (name) =>
      name.parent!.is("variable_name") ? undefined : { does: "read", spaces: ["callable"] },
    "class_declaration.name": className,
    "interface_declaration.name": className,
    "trait_declaration.name": className,
    "enum_declaration.name": className,
    "method_declaration.name": declaring("write", { as: "method", in: "class", spaces: ["method"] }),
    "property_element.name": field,
    "enum_case.name": field,
    const_element: (name) =>
      !name.parent!.firstPart!.same(name)
        ? undefined
        : name.closest(["declaration_list", "program"])?.is("declaration_list")
          ? field
          : declaring("write", { as: "constant", in: "file", spaces: ["constant"] }),
    "member_access_expression.name": memberName("object", "member"),
    "nullsafe_member_access_expression.name": memberName("object", "member"),
    "member_call_expression.name": memberName("object", "method"),
    "nullsafe_member_call_expression.name": memberName("object", "method"),
    "scoped_call_expression.name": memberName("scope", "method"),
    "scoped_property_access_expression.name": memberRead("scope", ["member"]),
    "scoped_call_expression.scope": classNamed,
    "scoped_property_access_expression.scope": classNamed,
    class_constant_access_expression: (name) =>
      name.parent!.is("variable_name")
        ? undefined
        : name.parent!.firstPart!.same(name)
          ? typeRead
          : memberRead("first", ["member"]),
    object_creation_expression: classNamed,
    base_clause: typeRead,
    class_interface_clause: typeRead,
    named_type: typeRead,
    use_declaration: typeRead,
    "binary_expression.right": (name, target) =>
      target.parent!.has("instanceof") && !name.parent!.is("variable_name") ? typeRead : undefined,
    qualified_name: (name) => (name.closest(["namespace_use_clause"]) ? importedName(name) : "unknown"),
    namespace_name: "nothing",
    namespace_use_clause: importedName,
    use_instead_of_clause: "unknown",
    use_as_clause: "unknown",
    goto_statement: "nothing",
    named_label_statement: "nothing",
    attribute: typeRead,
  },
  scopes: {
    program: { is: "file" },
    class_declaration: TYPE,
    interface_declaration: TYPE,
    trait_declaration: TYPE,
    enum_declaration: TYPE,
    anonymous_class: { is: "class", outside: ["arguments"] },
    function_definition: FUNCTION,
    method_declaration: FUNCTION,
    anonymous_function: { is: "function", closed: true },
    arrow_function: { is: "function" },
  },
  bare(name) {
    return name.parent?.is(["variable_name", "dynamic_variable_name"]) ? name.text : name.text.toLowerCase();
  },
  bareText: (text) => text.replace(/^\$/, ""),
  isReference(declared) {
    const variable = declared.is("name") ? declared.parent! : declared;
    if (variable.parent?.is(["by_ref", "global_declaration", "static_variable_declaration"])) return true;
    if (variable.parent?.is("reference_assignment_expression")) return variable.field === "left";
    return variable.parent !== undefined && isByReference(variable.parent);
  },
  takesReference: isByReference,
  runsInScope: {
    kinds: ["include_expression", "include_once_expression", "require_expression", "require_once_expression"],
  },
  selfOf(node) {
    const isSelf = node.text === "$this" || (node.is("relative_scope") && /^(self|static)$/i.test(node.text));
    return isSelf
      ? node.closest(["class_declaration", "trait_declaration", "enum_declaration", "anonymous_class"])
      : undefined;
  },
  implicit: (name) => name.text === "this" && (name.parent?.is("variable_name") ?? false),
  parentsOf: (scope) => [
    ...scope.children.filter((child) => child.is(["base_clause", "class_interface_clause"])),
    ...(scope.child("body")?.children.filter((child) => child.is("use_declaration")) ?? []),
  ],
  isPublic(name, as, scope) {
    if (as === "parameter") return false;
    // Whoever includes the file has its variables, and so has whoever says `global`.
    if (as === "local") return scope.is("program");
    const declaration = name.closest([
      "property_declaration",
      "method_declaration",
      "const_declaration",
      "property_promotion_parameter",
    ]);
    return !declaration?.children.some(
      (child) => child.is("visibility_modifier") && child.text === "private",
    );
  },
};

/** `use A\B;` names B, `use A\B as C;` names C. */
function importedName(name: SyntaxNode): NameUse | "nothing" {
  const clause = name.closest(["namespace_use_clause"])!;
  const alias = clause.child("alias");
  if (alias) return alias.same(name) ? imported : "nothing";
  const last = [...clause.descendants()].filter((node) => node.is("name")).at(-1);
  return last?.same(name) ? imported : "nothing";
}

/** The member's name where it is written out; where a variable holds it, the variable is read. */
function memberName(memberOf: string, space: "member" | "method"): UseEntry {
  return (name) => (name.parent!.is("variable_name") ? undefined : memberRead(memberOf, [space]));
}
