import { ordinaryNames, type Declares, type NameFacts, type NameUse, type UseEntry } from "../name-facts.js";
import type { SyntaxNode } from "../node.js";

/** Evaluated before the function is made. */
const OUTSIDE: Readonly<Record<string, readonly string[]>> = {
  default_parameter: ["value"],
  typed_default_parameter: ["value", "type"],
  typed_parameter: ["type"],
  function_definition: ["return_type"],
};

/** What the first `for` of a comprehension runs over is evaluated outside of it. */
function isFirstClause(clause: SyntaxNode): boolean {
  return clause.parent?.parts.find((part) => part.is("for_in_clause"))?.same(clause) ?? false;
}

const declares = (does: NameUse["does"], what: Declares): NameUse => ({ does, declares: what });
const spaces = ["value", "member"] as const;
const assigned = declares("write", { as: "local", in: "function", spaces });
const updated = declares("update", { as: "local", in: "function", spaces });
const parameter = declares("write", { as: "parameter", in: "here" });
const imported = declares("write", { as: "import", in: "function", spaces });
const member: NameUse = { does: "read", memberOf: "object" };
const keyword: NameUse = { does: "read", memberOf: "" };
const argumentName: NameUse = { ...keyword, named: true };
const declaredType = declares("declare", { as: "local", in: "function", spaces });

const COMPREHENSIONS = [
  "list_comprehension",
  "set_comprehension",
  "dictionary_comprehension",
  "generator_expression",
];

/** `:=` in a comprehension binds in the function around it. */
function aroundComprehensions(name: SyntaxNode): SyntaxNode | undefined {
  for (const above of name.ancestors()) {
    if (above.is(["function_definition", "lambda", "class_definition"])) return above;
  }
  return undefined;
}

const IMPORTS = ["import_statement", "import_from_statement", "future_import_statement"];

const dotted: UseEntry = (name) => {
  const statement = name.closest(IMPORTS);
  const path = name.parent!;
  if (statement) {
    if (
      path.field === "module_name" ||
      path.parent?.is("relative_import") ||
      path.parent?.is("aliased_import")
    )
      return "nothing";
    return path.firstPart?.same(name) ? imported : "nothing";
  }
  if (!path.firstPart?.same(name)) return keyword;
  if (path.closest(["case_pattern", "decorator"])?.is("case_pattern")) {
    const isValue = path.parts.length > 1 || path.parent?.is("class_pattern");
    return isValue ? { does: "read" } : name.text === "_" ? "nothing" : assigned;
  }
  return { does: "read" };
};

/** How names bind in Python, by its reference on naming and binding. */
export const pythonNames: NameFacts = {
  ...ordinaryNames,
  leaves: { identifier: { does: "read" } },
  groups: {
    pattern_list: [],
    tuple_pattern: [],
    list_pattern: [],
    list_splat_pattern: [],
    dictionary_splat_pattern: [],
    splat_pattern: [],
    tuple: [],
    list: [],
    expression_list: [],
    parenthesized_expression: [],
    list_splat: [],
  },
  uses: {
    "assignment.left": (_name, target) => (target.parent!.child("right") ? assigned : declaredType),
    "augmented_assignment.left": updated,
    "for_statement.left": assigned,
    "for_in_clause.left": declares("write", { as: "local", in: "here" }),
    "named_expression.name": declares("write", { as: "local", in: aroundComprehensions }),
    "function_definition.name": declares("write", { as: "function", in: "function", spaces }),
    "class_definition.name": declares("write", { as: "class", in: "function", spaces }),
    "type_alias_statement.left": assigned,
    parameters: parameter,
    lambda_parameters: parameter,
    "default_parameter.name": parameter,
    "typed_default_parameter.name": parameter,
    "typed_parameter.type": { does: "read" },
    typed_parameter: parameter,
    type: (name) => {
      const list = name.parent!.parent?.is("constrained_type")
        ? name.parent!.parent.parent
        : name.parent!.parent;
      return list?.is("type_parameter") && list.field === "type_parameters" ? "unknown" : undefined;
    },
    as_pattern_target: assigned,
    as_pattern: (_name, target) => {
      const isBound = target.parent!.firstPart?.same(target) === false;
      return isBound && target.parent!.parent?.is("case_pattern") ? assigned : undefined;
    },
    delete_statement: updated,
    global_statement: declares("declare", { as: "local", in: "here", sharedWith: "file" }),
    nonlocal_statement: declares("declare", { as: "local", in: "here", sharedWith: "function" }),
    "aliased_import.alias": imported,
    case_pattern: assigned,
    splat_pattern: (name) => (name.text === "_" ? "nothing" : assigned),
    keyword_pattern: (name) => (name.parent!.firstPart?.same(name) ? keyword : undefined),
    "attribute.attribute": member,
    "keyword_argument.name": argumentName,
    dotted_name: dotted,
  },
  scopes: {
    module: { is: "file" },
    function_definition: { is: "function", outside: ["name"] },
    lambda: { is: "function" },
    class_definition: { is: "class", outside: ["name", "superclasses"], shallow: true },
    ...Object.fromEntries(COMPREHENSIONS.map((kind) => [kind, { is: "function" as const }])),
  },
  evaluatedOutside: (part) =>
    OUTSIDE[part.parent!.kind]?.includes(part.field ?? "") === true ||
    (part.parent!.is("for_in_clause") && part.field === "right" && isFirstClause(part.parent!)),
  assignedMembers: true,
  filesAreObjects: true,
  renamed(node, newName) {
    const path = node.parent;
    const isImported = path?.is("dotted_name") === true && path.closest(IMPORTS)?.child("name") !== undefined;
    if (!isImported) return { node, text: newName };
    return path.parts.length === 1 ? { node, text: `${node.text} as ${newName}` } : undefined;
  },
  selfOf,
  parentsOf: (scope) => scope.child("superclasses")?.parts ?? [],
  // A leading underscore only asks others not to.
  isPublic: (name, as) => as === "parameter" || !isLocal(name),
};

function isLocal(name: SyntaxNode): boolean {
  for (const above of name.ancestors()) {
    if (above.is("class_definition")) return false;
    if (above.is(["function_definition", "lambda"]) && !above.child("name")?.same(name)) return true;
  }
  return false;
}

/** The first parameter of a method, where nothing else was assigned to it. */
function selfOf(node: SyntaxNode): SyntaxNode | undefined {
  if (!node.is("identifier")) return undefined;
  for (const above of node.ancestors()) {
    if (!above.is(["function_definition", "lambda"])) continue;
    const first = above.child("parameters")?.firstPart;
    const name = first?.is("identifier") ? first.text : first?.firstPart?.text;
    if (name !== node.text) {
      if (bindsIt(above, node.text)) return undefined;
      continue;
    }
    const holder = above.parent?.is("decorated_definition") ? above.parent : above;
    const isPlain = !holder.parts.some(
      (part) => part.is("decorator") && /\b(static|class)method\b/.test(part.text),
    );
    const owner = holder.parent?.parent;
    return isPlain && owner?.is("class_definition") && above.is("function_definition") ? owner : undefined;
  }
  return undefined;
}

function bindsIt(functionNode: SyntaxNode, name: string): boolean {
  const parameters = functionNode.child("parameters")?.parts ?? [];
  return parameters.some(
    (part) => (part.is("identifier") ? part : (part.child("name") ?? part.firstPart))?.text === name,
  );
}
