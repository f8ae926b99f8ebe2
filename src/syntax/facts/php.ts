import { phpBare } from "../bare/php.js";
import { ordinaryTypes } from "../type-notation.js";
import { phpVersions } from "../versions/php.js";
import { phpClasses } from "../classes/php.js";
import { ordinaryCode } from "../code-facts.js";
import { phpImports } from "../imports/php.js";
import { phpFlow } from "../flow/php.js";
import { phpLinks } from "../links/namespaces.js";
import { phpNames } from "../names/php.js";
import type { Language } from "../language.js";
import { ordinaryMeaning } from "../meaning-facts.js";

const FUNCTIONS = ["function_definition", "method_declaration", "anonymous_function", "arrow_function"];

/** None of a row may stand beside another of it without parentheses. */
const EQUALITIES = ["==", "!=", "<>", "===", "!==", "<=>"];
const ORDERS = ["<", "<=", ">", ">="];

export const php: Language = {
  ...ordinaryCode,
  ...ordinaryMeaning,
  id: "php",
  title: "PHP",
  grammar: "tree-sitter-php",
  extensions: [".php", ".phtml", ".inc"],
  interpreters: ["php"],
  fences: ["php"],
  speaks: ["php"],
  imports: phpImports,
  binding: phpNames,
  links: phpLinks,
  flow: phpFlow,
  classFacts: phpClasses,
  versions: phpVersions,
  contexts: [
    { name: "statement", before: "<?php\n", after: "" },
    { name: "expression", before: "<?php (", after: ");" },
    { name: "member", before: "<?php class Uvran {\n", after: "\n}" },
    { name: "file", before: "<?php\n", after: "" },
    { name: "import", before: "<?php\n", after: "" },
    { name: "type", before: "<?php function uvran(): ", after: " {}" },
    { name: "parameter", before: "<?php function uvran(", after: ") {}" },
  ],
  holes: {
    name: ["hole", "$hole"],
    expression: ["$hole"],
    type: ["Hole"],
    operator: ["+", "=", "+=", "->"],
    text: ["hole"],
    statement: ["hole();"],
    statements: ["hole();"],
    arguments: ["$hole"],
    parameters: ["$hole"],
    members: ["public $hole;"],
    modifiers: ["#[Hole]"],
  },
  comments: ["comment"],
  lineComments: ["//", "#"],
  optionalBraces: ["compound_statement"],
  assumedVersion: "7.4",
  argumentPlace: (argument) =>
    argument.is("argument") && argument.child("name")
      ? "named"
      : argument.is("comment")
        ? "anywhere"
        : "ahead",
  indentUnit: "    ",
  multiLineLiterals: ["string", "encapsed_string", "heredoc", "nowdoc", "text", "text_interpolation"],
  strings: ["string", "encapsed_string"],
  optionalTokens: {
    arguments: [","],
    array_creation_expression: [","],
    formal_parameters: [","],
    match_block: [","],
  },
  chains: ["argument", "array_element_initializer"],
  ignoresCase: "keywords",
  caseless: ["null", "boolean", "primitive_type"],
  commutative: ["==", "!=", "===", "!==", "<>"],
  parenthesized: "parenthesized_expression",
  bare: phpBare,
  neverSideBySide: [EQUALITIES, ORDERS].flatMap((own) => own.map((one) => [one, own] as const)),
  binary: ["binary_expression"],
  isNoStatement(node) {
    const before = node.parent?.children.filter((child) => child.end <= node.start).at(-1);
    return before !== undefined && before.text.endsWith("<?=");
  },
  expressionStatement: "expression_statement",
  statementLists: ["program", "compound_statement", "colon_block", "case_statement", "default_statement"],
  memberLists: ["declaration_list", "enum_declaration_list"],
  argumentLists: ["arguments"],
  parameterLists: ["formal_parameters"],
  modifiers: [
    "attribute_list",
    "visibility_modifier",
    "static_modifier",
    "abstract_modifier",
    "final_modifier",
    "readonly_modifier",
    "var_modifier",
  ],
  spreads: ["variadic_unpacking"],
  notExpressions: ["argument", "variadic_unpacking", "by_ref", "named_type", "primitive_type"],
  names: ["name", "variable_name"],

  variables: ["name"],
  functions: FUNCTIONS,
  delayed: FUNCTIONS,
  stores: [
    "pair",
    "object_creation_expression",
    "list_literal",
    "array_creation_expression",
    "array_element_initializer",
  ],
  handsOn: ["cast_expression", "variable_name"],
  takesApart: ["list_literal"],
  types: {
    ...ordinaryTypes,
    declarators: { variadic_parameter: "many" },
    around: ["optional_type"],
    composed: ["union_type", "intersection_type"],
    creations: { object_creation_expression: 0 },
    heldAtFirst: ["parameter"],
  },
  calls: [
    "function_call_expression",
    "member_call_expression",
    "nullsafe_member_call_expression",
    "scoped_call_expression",
    "object_creation_expression",
    "include_expression",
    "include_once_expression",
    "require_expression",
    "require_once_expression",
  ],
  memberReads: ["member_access_expression", "nullsafe_member_access_expression", "member_call_expression"],
  indexReads: ["subscript_expression"],
  namesWorkedOut: ["dynamic_variable_name"],
  reflection: [
    "compact",
    "extract",
    "get_defined_vars",
    "eval",
    "parse_str",
    "func_get_args",
    "func_get_arg",
  ],
  suspensions: ["yield_expression"],
  augmented: ["augmented_assignment_expression", "update_expression"],
  plainValues: ["integer", "float", "string", "boolean"],
  literals: ["integer", "float", "string", "string_content", "boolean", "null"],
  combinations: [
    "parenthesized_expression",
    "binary_expression",
    "unary_op_expression",
    "conditional_expression",
    "variable_name",
    "array_creation_expression",
    // What belongs to a class runs no code when it is read.
    "scoped_property_access_expression",
    "class_constant_access_expression",
  ],
  classes: ["class_declaration", "interface_declaration", "trait_declaration", "enum_declaration"],
  quietOperators: "=== !== && || ! and or xor instanceof ??".split(" "),
  plainTypes: "int float string bool array".split(" "),
  bareCalls: ["exit", "die"],
  textParts: ["encapsed_string"],
  reads: { names: "plain", members: "magic", plainItems: ["array", "string"] },
  outermost: "\\",
  definesFunction: (name) =>
    new RegExp(
      // A method is no function, whatever its name.
      `(?<!\\b(?:public|private|protected|static|abstract|final)\\s+)\\bfunction\\s+&?\\s*${name}\\s*\\(|\\buse\\s+function\\s+[\\w\\\\]+\\\\(?:\\{[^}]*\\b)?${name}\\b`,
      "i",
    ),
  literalTypes: {
    string: "string",
    encapsed_string: "string",
    integer: "int",
    float: "float",
    boolean: "bool",
    array_creation_expression: "array",
  },
  builtins: [
    "this",
    "GLOBALS",
    "_GET",
    "_POST",
    "_SERVER",
    "_COOKIE",
    "_FILES",
    "_ENV",
    "_REQUEST",
    "_SESSION",
  ],
};
