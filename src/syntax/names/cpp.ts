import {
  ordinaryNames,
  type NameFacts,
  type NameUse,
  type ScopeFacts,
  type UseEntry,
  type UseFunction,
} from "../name-facts.js";
import type { SyntaxNode } from "../node.js";
import { oncePerTree } from "../once-per-tree.js";
import { firstOfItsName } from "./reopened.js";
import { assigns, declaring, memberOfSomething, passes, reads, updates } from "./uses.js";

const CLASSES = ["class_specifier", "struct_specifier", "union_specifier"];
const member: NameUse = { does: "read", memberOf: "argument", spaces: ["value"] };
const typeName = declaring("declare", { as: "type", in: "here" });
const local = declaring("write", { as: "local", in: "here", fromHere: true });
const address: NameUse = { does: "address" };

/** A declarator: a variable, a field, a function or a parameter of a prototype. */
const declared: UseEntry = (name, target) => {
  if (isConstructor(name)) return reads;
  const isFunction =
    target.kind === "function_declarator" || name.closest(["function_declarator"])?.field === "declarator";
  const does = target.is("init_declarator") || target.parent?.is("function_definition") ? "write" : "declare";
  const scope = holderOf(target);
  if (scope?.is("field_declaration_list")) {
    return declaring(does, { as: isFunction ? "method" : "field", in: "class" });
  }
  if (isFunction) return declaring(does, { as: "function", in: "here" });
  return declaring(does, { as: "local", in: "here", fromHere: true });
};

/** The list that a declaration stands in. */
function holderOf(declarator: SyntaxNode): SyntaxNode | undefined {
  return declarator.closest([
    "field_declaration_list",
    "compound_statement",
    "declaration_list",
    "translation_unit",
  ]);
}

function isConstructor(name: SyntaxNode): boolean {
  return (
    name.closest(CLASSES)?.child("name")?.text === name.text &&
    name.parent?.is("function_declarator") === true
  );
}

/** Parameters live in the function whose list they stand in, or in the declarator of one that has no body here. */
const parameter: NameUse = declaring("write", { as: "parameter", in: functionOfParameter });

function functionOfParameter(name: SyntaxNode): SyntaxNode | undefined {
  const list = name.closest(["parameter_list", "template_parameter_list"]);
  let at = list?.parent;
  if (at?.is("lambda_declarator")) return at.parent;
  if (!at?.is("function_declarator")) return at;
  const declarator = at;
  while (at?.parent && isDeclarator(at.parent) && at.field === "declarator") at = at.parent;
  return at?.parent?.is("function_definition") ? at.parent : declarator;
}

/** Does a parameter, with a name or without one, take what it is given by a reference that may change it? */
function isByReference(parameter: SyntaxNode): boolean {
  const declarator = parameter.child("declarator");
  const isReference = declarator?.is(["reference_declarator", "abstract_reference_declarator"]) === true;
  return isReference && !parameter.parts.some((part) => part.is("type_qualifier") && part.text === "const");
}

function isDeclarator(node: SyntaxNode): boolean {
  return node.kind.endsWith("_declarator");
}

const classOrReference: UseEntry = (name) => {
  const specifier = name.parent!;
  if (specifier.child("body")) return declaring("write", { as: "class", in: "here" });
  return specifier.parent?.child("declarator") || specifier.parent?.is("friend_declaration")
    ? reads
    : declaring("declare", { as: "class", in: "here" });
};

/** What is done to a member or an item of an object is done to the object, unless a pointer leads there. */
const partOf: UseFunction = (name, target) => {
  const access = target.parent!;
  if (access.children.some((child) => child.kind === "->")) return reads;
  const above = access.parent;
  if (above?.is("call_expression") && access.field === "function") return passes;
  if (above?.is(["assignment_expression", "update_expression"]) && access.field !== "right") return updates;
  if (above?.is("pointer_expression") && above.has("&")) return address;
  if (above?.is("argument_list")) return passes;
  if (above?.is(["field_expression", "subscript_expression"])) return partOf(name, access);
  return reads;
};

/** What a variable is made of: a reference is another name for it, and a class may have a constructor that keeps one. */
const initial: UseFunction = (_name, target) => {
  if (target.parent!.child("declarator")?.is("reference_declarator")) return address;
  if (!target.is("initializer_list")) return undefined;
  const type = target.closest(["declaration"])?.child("type");
  return type?.is(["primitive_type", "sized_type_specifier"]) ? reads : passes;
};

/** What a function gives back by reference can be changed by its caller. */
const returned: UseFunction = (_name, target) => {
  if (target.is("initializer_list")) return passes;
  const around = target.closest(["function_definition", "lambda_expression"]);
  const declarator = around?.child("declarator");
  const trailing = declarator?.parts.find((part) => part.is("trailing_return_type"));
  const isReference =
    declarator?.is("reference_declarator") === true ||
    (trailing !== undefined &&
      [...trailing.descendants()].some((one) => one.is("abstract_reference_declarator"))) ||
    /\bdecltype\s*\(\s*auto\s*\)/.test(`${around?.child("type")?.text} ${trailing?.text}`);
  return isReference ? address : undefined;
};

/** `Keeper k(n);` in a function reads like the head of a function; where `n` is a variable, it makes an object of it. */
const vexing: UseFunction = (name, target) => {
  const parameter = target.parent!;
  const isAlone = parameter.parts.length === 1 && name.is("type_identifier");
  const declaration = parameter.closest(["declaration", "function_definition", "lambda_expression"]);
  return isAlone && declaration?.is("declaration") && declaration.parent?.is("compound_statement")
    ? passes
    : undefined;
};

/** A cast to a reference is another name for what it is made from; any other cast makes a value of its own. */
function isToReference(cast: SyntaxNode): boolean {
  return [...(cast.child("type")?.descendants() ?? [])].some((one) =>
    one.is("abstract_reference_declarator"),
  );
}

/** Operators that libraries use to read into a variable: `in >> n`, and `archive & n;` whose value nobody takes. */
function mayFill(operation: SyntaxNode): boolean {
  if (operation.has(">>")) return true;
  if (!operation.has("&")) return false;
  const { parent } = operation;
  return (
    parent?.is("expression_statement") === true ||
    (parent?.is("binary_expression") === true && mayFill(parent))
  );
}

const BLOCK: ScopeFacts = { is: "block" };

/** How names bind in C++. */
export const cppNames: NameFacts = {
  ...ordinaryNames,
  typesAreKept: true,
  leaves: {
    identifier: reads,
    type_identifier: reads,
    namespace_identifier: reads,
    field_identifier: memberOfSomething,
  },
  groups: {
    pointer_declarator: ["declarator"],
    reference_declarator: [],
    array_declarator: ["declarator"],
    function_declarator: ["declarator"],
    parenthesized_declarator: [],
    attributed_declarator: [],
    init_declarator: ["declarator"],
    variadic_declarator: [],
    structured_binding_declarator: [],
    parenthesized_expression: [],
    conditional_expression: ["consequence", "alternative"],
    comma_expression: ["right"],
    initializer_list: [],
    initializer_pair: ["value"],
    parameter_pack_expansion: [],
  },
  uses: {
    "declaration.declarator": declared,
    "field_declaration.declarator": declared,
    "function_definition.declarator": declared,
    "parameter_declaration.declarator": parameter,
    "optional_parameter_declaration.declarator": parameter,
    "variadic_parameter_declaration.declarator": parameter,
    "for_range_loop.declarator": local,
    "for_range_loop.right": passes,
    "init_declarator.value": initial,
    "declaration.default_value": initial,
    field_initializer: (_name, target) => (target.is("initializer_list") ? passes : { does: "write" }),
    "cast_expression.value": (_name, target) => (isToReference(target.parent!) ? address : undefined),
    "new_expression.arguments": passes,
    "compound_literal_expression.value": passes,
    "gnu_asm_output_operand.value": updates,
    "lambda_capture_initializer.right": (_name, target) => (target.parent!.has("&") ? address : reads),
    return_statement: returned,
    co_yield_statement: passes,
    "parameter_declaration.type": vexing,
    "type_definition.declarator": typeName,
    "alias_declaration.name": typeName,
    "concept_definition.name": typeName,
    "class_specifier.name": classOrReference,
    "struct_specifier.name": classOrReference,
    "union_specifier.name": classOrReference,
    "enum_specifier.name": classOrReference,
    "enumerator.name": declaring("write", {
      as: "constant",
      in: (name) => {
        const specifier = name.closest(["enum_specifier"]);
        return specifier?.has("class") || specifier?.has("struct") ? specifier : scopeAround(specifier);
      },
    }),
    type_parameter_declaration: typeName,
    variadic_type_parameter_declaration: typeName,
    "optional_type_parameter_declaration.name": typeName,
    "namespace_definition.name": declaring("write", { as: "namespace", in: "here" }),
    "namespace_alias_definition.name": declaring("write", { as: "namespace", in: "here" }),
    nested_namespace_specifier: "unknown",
    "preproc_def.name": declaring("write", { as: "constant", in: "file" }),
    "preproc_function_def.name": declaring("write", { as: "function", in: "file" }),
    preproc_params: "nothing",
    "qualified_identifier.name": { does: "read", memberOf: "scope", spaces: ["value"] },
    using_declaration: reads,
    "field_expression.field": member,
    field_designator: memberOfSomething,
    "field_expression.argument": partOf,
    "subscript_expression.argument": partOf,
    "assignment_expression.left": assigns,
    "update_expression.argument": updates,
    "pointer_expression.argument": (_name, target) => (target.parent!.has("&") ? address : reads),
    argument_list: passes,
    "binary_expression.right": (_name, target) => (mayFill(target.parent!) ? passes : undefined),
    "lambda_capture_initializer.left": declaring("write", { as: "local", in: "here" }),
    lambda_capture_specifier: reads,
    attribute: "nothing",
  },
  scopes: {
    translation_unit: { is: "file" },
    namespace_definition: { is: "namespace", outside: ["name"] },
    class_specifier: { is: "class", outside: ["name"] },
    struct_specifier: { is: "class", outside: ["name"] },
    union_specifier: { is: "class", outside: ["name"] },
    enum_specifier: { is: "block", outside: ["name"] },
    template_declaration: BLOCK,
    function_definition: { is: "function" },
    function_declarator: { is: "block", outside: ["declarator"] },
    lambda_expression: { is: "function" },
    compound_statement: BLOCK,
    for_statement: BLOCK,
    for_range_loop: { is: "block", outside: ["right"] },
    if_statement: BLOCK,
    while_statement: BLOCK,
    switch_statement: BLOCK,
    catch_clause: BLOCK,
    requires_expression: BLOCK,
  },
  evaluatedOutside(part) {
    const above = part.parent!;
    if (above.is("function_declarator") && part.field === "declarator") {
      let at = above;
      while (at.parent && isDeclarator(at.parent)) at = at.parent;
      return at.parent?.is("function_definition") ?? false;
    }
    return above.is("lambda_capture_initializer") && part.field === "right";
  },
  selfOf(node) {
    if (!node.is("this")) return undefined;
    for (const above of node.ancestors()) {
      if (above.is(CLASSES)) return above;
      const owner = ownerOf(above);
      if (owner) return owner === "elsewhere" ? undefined : owner;
    }
    return undefined;
  },
  ownerOf,
  ownerNamed,
  isReference(declared) {
    for (let at = declared.parent; at && isDeclarator(at); at = at.parent)
      if (at.is(["reference_declarator", "structured_binding_declarator"])) return true;
    return declared.parent?.is("lambda_capture_initializer") === true && declared.parent.has("&");
  },
  takesReference: isByReference,
  bareMembers: true,
  parentsOf: (scope) => scope.children.filter((child) => child.is("base_class_clause")),
  reopened: (scope) => firstOfItsName(scope, ["namespace_definition"]),
  hides(name, tree) {
    const word = new RegExp(`(^|[^\\w])${name}([^\\w]|$)`);
    const nodes = tree.ofKinds(["preproc_arg"]).map((id) => tree.node(id));
    return nodes.find((node) => word.test(node.text) || isPasted(name, node.text));
  },
  isPublic: (name, as) => as !== "parameter" && (as !== "local" || isGlobal(name)),
};

/** Is a variable that stands outside of functions one that other files can name? */
function isGlobal(name: SyntaxNode): boolean {
  const declaration = name.closest([
    "declaration",
    "parameter_declaration",
    "function_definition",
    "lambda_expression",
  ]);
  if (!declaration?.is("declaration")) return false;
  const list = declaration.closest(["translation_unit", "declaration_list", "compound_statement"]);
  const isHidden = declaration.parts.some((part) => /^(static|const|constexpr)$/.test(part.text));
  const namespace = declaration.closest(["namespace_definition"]);
  return (
    list?.is("compound_statement") === false &&
    !isHidden &&
    (!namespace || namespace.child("name") !== undefined)
  );
}

/** Can a macro put this name together with `##`? Its parameters can be anything. */
function isPasted(name: string, body: string): boolean {
  return [...body.matchAll(/(\w*)\s*##\s*(\w*)/g)].some(
    ([, before = "", after = ""]) => name.startsWith(before) || name.endsWith(after),
  );
}

function scopeAround(node: SyntaxNode | undefined): SyntaxNode | undefined {
  for (const above of node?.ancestors() ?? [])
    if (cppNames.scopes[above.kind]) return cppNames.reopened(above);
  return undefined;
}

/** The class of a function that is defined outside of it, by the name before `::`. */
function ownerOf(scope: SyntaxNode): SyntaxNode | "elsewhere" | undefined {
  if (!qualifiedName(scope)) return undefined;
  const name = ownerNamed(scope);
  return (name === undefined ? undefined : classesOf(scope.tree).get(name)) ?? "elsewhere";
}

function ownerNamed(scope: SyntaxNode): string | undefined {
  let at = qualifiedName(scope);
  while (at?.child("name")?.is("qualified_identifier")) at = at.child("name")!;
  const name = at?.child("scope");
  return name?.is("template_type") ? name.child("name")?.text : name?.text;
}

/** The name with `::` in it that a function is defined by. */
function qualifiedName(scope: SyntaxNode): SyntaxNode | undefined {
  if (!scope.is("function_definition")) return undefined;
  let at = scope.child("declarator");
  while (at && isDeclarator(at)) at = at.child("declarator") ?? at.firstPart;
  return at?.is("qualified_identifier") ? at : undefined;
}

/** The classes that a file defines, by their names; the first of a name. */
const classesOf = oncePerTree((tree) => {
  const known = new Map<string, SyntaxNode>();
  for (const id of tree.ofKinds(CLASSES)) {
    const node = tree.node(id);
    const name = node.child("body") ? node.child("name")?.text : undefined;
    if (name !== undefined && !known.has(name)) known.set(name, node);
  }
  return known;
});
