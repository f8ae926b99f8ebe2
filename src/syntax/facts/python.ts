import { ordinaryCode } from "../code-facts.js";
import { pythonImports } from "../imports/python.js";
import { pythonFlow } from "../flow/python.js";
import { pythonNames } from "../names/python.js";
import type { Language } from "../language.js";
import type { NameRole } from "../meaning-facts.js";
import type { SyntaxNode } from "../node.js";

export const python: Language = {
  ...ordinaryCode,
  id: "python",
  title: "Python",
  grammar: "tree-sitter-python",
  extensions: [".py", ".pyi", ".pyw"],
  fences: ["py", "python", "python3"],
  speaks: ["python"],
  imports: pythonImports,
  binding: pythonNames,
  flow: pythonFlow,
  contexts: [
    { name: "statement", before: "", after: "" },
    { name: "file", before: "", after: "" },
    { name: "import", before: "", after: "" },
    { name: "expression", before: "(", after: ")" },
    { name: "member", before: "", after: "" },
    { name: "type", before: "uvran: ", after: "" },
    { name: "parameter", before: "def uvran(", after: "): pass" },
  ],
  holes: {
    name: ["hole"],
    expression: ["hole"],
    type: ["hole"],
    operator: ["+", "==", "and", "=", "+="],
    text: ["hole"],
    statement: ["hole"],
    statements: ["hole"],
    arguments: ["hole"],
    parameters: ["hole"],
    members: ["hole"],
    modifiers: ["@hole"],
  },
  neverEmpty: ["block"],
  comments: ["comment"],
  layout: ["line_continuation"],
  lineComments: ["#"],
  lineBreaksMatter: true,
  indentUnit: "    ",
  multiLineLiterals: ["string"],
  strings: ["string"],
  optionalTokens: { argument_list: [","], list: [","], dictionary: [","], set: [","], parameters: [","] },
  commutative: ["==", "!="],
  parenthesized: "parenthesized_expression",
  binary: ["binary_operator", "boolean_operator", "comparison_operator"],

  expressionStatement: "expression_statement",
  statementLists: ["module", "block"],
  memberLists: ["block"],
  argumentLists: ["argument_list"],
  parameterLists: ["parameters", "lambda_parameters"],
  modifiers: ["decorator", "async"],
  notExpressions: [
    "list_splat",
    "dictionary_splat",
    "keyword_argument",
    "expression_list",
    "pattern_list",
    "assignment",
    "augmented_assignment",
  ],
  names: ["identifier"],
  variables: ["identifier"],
  functions: ["function_definition", "lambda"],
  classes: ["class_definition"],
  blockScopes: [],
  delayed: ["function_definition", "class_definition", "lambda", "generator_expression"],
  exits: ["return_statement", "raise_statement", "break_statement", "continue_statement"],
  calls: ["call"],
  memberReads: ["attribute"],
  indexReads: ["subscript"],
  wildcardImports: ["wildcard_import"],
  reflection: ["exec", "eval", "globals", "locals", "vars"],
  harmless: "len print range str int float abs round repr isinstance type".split(" "),
  suspensions: ["await", "yield"],
  resourceBlocks: ["with_statement"],
  sharing: ["global_statement", "nonlocal_statement"],
  augmented: ["augmented_assignment"],
  plainValues: ["integer", "float", "string"],
  literals: [
    "integer",
    "float",
    "true",
    "false",
    "none",
    "ellipsis",
    "string_content",
    "string_start",
    "string_end",
  ],
  combinations: [
    "parenthesized_expression",
    "binary_operator",
    "boolean_operator",
    "comparison_operator",
    "not_operator",
    "unary_operator",
    "conditional_expression",
    "tuple",
    "list",
    "dictionary",
    "set",
    "pair",
    "string",
    "concatenated_string",
    "interpolation",
    "slice",
    "format_specifier",
    "type_conversion",
  ],
  builtins: (
    "abs aiter all anext any ascii bin bool breakpoint bytearray bytes callable chr classmethod compile " +
    "complex copyright credits delattr dict dir divmod enumerate eval exec exit filter float format " +
    "frozenset getattr globals hasattr hash help hex id input int isinstance issubclass iter len license " +
    "list locals map max memoryview min next object oct open ord pow print property quit range repr " +
    "reversed round set setattr slice sorted staticmethod str sum super tuple type vars zip " +
    "False None True and as assert async await break case class continue def del elif else except finally " +
    "for from global if import in is lambda match nonlocal not or pass raise return try while with yield"
  ).split(" "),
  role,
  isTarget,
  declaredIn: (name) => name.closest(["function_definition", "lambda", "class_definition", "module"]),
  falsyAlike: () => false,
};

const WRITTEN_IN: Readonly<Record<string, readonly string[]>> = {
  assignment: ["left"],
  augmented_assignment: ["left"],
  for_statement: ["left"],
  for_in_clause: ["left"],
  named_expression: ["name"],
  function_definition: ["name"],
  class_definition: ["name"],
  default_parameter: ["name"],
  typed_default_parameter: ["name"],
};
const WRITTEN_BELOW = [
  "parameters",
  "lambda_parameters",
  "typed_parameter",
  "as_pattern_target",
  "global_statement",
  "nonlocal_statement",
  "delete_statement",
  "case_pattern",
  "aliased_import",
];
/** Kinds through which being a target passes down to the names inside. */
const TARGETS = [
  "pattern_list",
  "tuple_pattern",
  "list_pattern",
  "list_splat_pattern",
  "dictionary_splat_pattern",
  "splat_pattern",
  "tuple",
  "list",
  "expression_list",
  "parenthesized_expression",
  "list_splat",
];

function role(name: SyntaxNode): NameRole {
  let at = name;
  let parent = name.parent;
  if (!parent) return "read";
  if (parent.is("attribute")) return name.field === "attribute" ? "other" : "read";
  if (parent.is("keyword_argument") && name.field === "name") return "other";
  if (parent.is("dotted_name")) {
    const statement = parent.closest(["import_statement", "import_from_statement", "case_clause"]);
    if (!statement) return "read";
    if (parent.field === "module_name") return "other";
    if (parent.parent?.is("aliased_import")) return "other";
    return parent.parts[0]?.same(name) ? "write" : "other";
  }
  while (parent && parent.is(TARGETS)) {
    at = parent;
    parent = parent.parent;
  }
  if (!parent) return "read";
  if (parent.is("delete_statement") || parent.is("typed_parameter")) {
    return parent.is("typed_parameter") && at.field === "type" ? "read" : "write";
  }
  if (parent.is(WRITTEN_BELOW)) return "write";
  if (parent.is("as_pattern")) return at.field === "alias" ? "write" : "read";
  return WRITTEN_IN[parent.kind]?.includes(at.field ?? "") ? "write" : "read";
}

function isTarget(expression: SyntaxNode): boolean {
  let at = expression;
  let parent = expression.parent;
  while (parent?.is(TARGETS)) {
    at = parent;
    parent = parent.parent;
  }
  if (!parent) return false;
  if (parent.is(["assignment", "augmented_assignment", "for_statement", "for_in_clause"])) {
    return at.field === "left";
  }
  return parent.is(["delete_statement", "as_pattern_target"]);
}
