import { ordinaryTypes } from "../type-notation.js";
import { javaVersions } from "../versions/java.js";
import { javaClasses } from "../classes/java.js";
import { ordinaryCode } from "../code-facts.js";
import { javaImports } from "../imports/java.js";
import { javaFlow } from "../flow/java.js";
import { javaLinks } from "../links/java.js";
import { javaNames } from "../names/java.js";
import type { Language } from "../language.js";
import { ordinaryMeaning } from "../meaning-facts.js";

const FUNCTIONS = [
  "method_declaration",
  "constructor_declaration",
  "compact_constructor_declaration",
  "lambda_expression",
];

export const java: Language = {
  ...ordinaryCode,
  ...ordinaryMeaning,
  id: "java",
  title: "Java",
  grammar: "tree-sitter-java",
  extensions: [".java"],
  fences: ["java"],
  speaks: ["java"],
  imports: javaImports,
  binding: javaNames,
  links: javaLinks,
  flow: javaFlow,
  classFacts: javaClasses,
  versions: javaVersions,
  contexts: [
    { name: "statement", before: "class Uvran { void uvran() {\n", after: "\n} }" },
    { name: "member", before: "class Uvran {\n", after: "\n}" },
    { name: "file", before: "", after: "" },
    { name: "import", before: "", after: "" },
    { name: "expression", before: "class Uvran { Object uvran = ", after: "; }" },
    { name: "type", before: "class Uvran { ", after: " uvran; }" },
    { name: "parameter", before: "class Uvran { void uvran(", after: ") {} }" },
  ],
  holes: {
    name: ["hole"],
    expression: ["hole"],
    type: ["Hole"],
    operator: ["+", "=", "+=", "++"],
    text: ["hole"],
    statement: ["hole();"],
    statements: ["hole();"],
    arguments: ["hole"],
    parameters: ["Hole hole"],
    members: ["Hole hole;", "hole", "Hole()"],
    modifiers: ["@Hole"],
  },
  comments: ["line_comment", "block_comment"],
  lineComments: ["//"],
  optionalBraces: ["block"],
  assumedVersion: "8",
  indentUnit: "    ",
  multiLineLiterals: ["string_literal"],
  strings: ["string_literal"],
  optionalTokens: { array_initializer: [","], element_value_array_initializer: [","] },
  commutative: ["==", "!="],
  parenthesized: "parenthesized_expression",
  binary: ["binary_expression"],
  expressionStatement: "expression_statement",
  statementLists: ["block", "constructor_body", "switch_block_statement_group", "program"],
  memberLists: [
    "class_body",
    "interface_body",
    "enum_body_declarations",
    "annotation_type_body",
    "enum_body",
  ],
  argumentLists: ["argument_list"],
  parameterLists: ["formal_parameters"],
  modifierLists: ["modifiers"],
  modifiers: (
    "annotation marker_annotation public protected private abstract static final strictfp default " +
    "synchronized native transient volatile sealed non-sealed"
  ).split(" "),
  spreads: [],
  notExpressions: ["type_identifier", "generic_type", "array_type"],
  names: ["identifier", "type_identifier"],

  variables: ["identifier"],
  functions: FUNCTIONS,
  delayed: [...FUNCTIONS, "class_body"],
  stores: ["array_creation_expression", "object_creation_expression", "array_access", "array_initializer"],
  handsOn: ["cast_expression"],
  takesApart: ["pattern", "type_pattern", "record_pattern"],
  types: {
    ...ordinaryTypes,
    declarators: { spread_parameter: "many" },
    dimensions: "dimensions",
    arrays: ["array_type"],
    around: ["generic_type"],
    composed: ["array_type"],
    creations: { object_creation_expression: "type", array_creation_expression: "type" },
  },
  calls: ["method_invocation", "object_creation_expression", "explicit_constructor_invocation"],
  memberReads: ["field_access", "method_invocation"],
  indexReads: ["array_access"],
  reflection: [],
  resourceBlocks: ["try_with_resources_statement", "synchronized_statement"],
  augmented: ["update_expression"],
  plainValues: ["decimal_integer_literal", "string_literal", "true", "false"],
  literals: [
    "decimal_integer_literal",
    "hex_integer_literal",
    "decimal_floating_point_literal",
    "string_literal",
    "string_fragment",
    "character_literal",
    "true",
    "false",
    "null_literal",
    "this",
    "super",
    "class_literal",
  ],
  combinations: [
    "parenthesized_expression",
    "binary_expression",
    "unary_expression",
    "ternary_expression",
    "cast_expression",
    "instanceof_expression",
  ],
  constructors: ["constructor_declaration"],
  classes: ["class_declaration", "interface_declaration", "enum_declaration", "record_declaration"],
  quietOperators: "&& || ! == != instanceof".split(" "),
  plainTypes:
    "int long short byte char float double boolean String Integer Long Short Byte Character Float Double Boolean".split(
      " ",
    ),
  reads: { names: "plain", members: "plain", plainItems: "all" },
  typesBeginUpper: true,
  markedLiterals: { decimal_integer_literal: [[/l$/i, "long"]] },
  literalTypes: {
    string_literal: "String",
    decimal_integer_literal: "int",
    true: "boolean",
    false: "boolean",
  },
  builtins: (
    "abstract assert boolean break byte case catch char class const continue default do double else enum " +
    "extends final finally float for goto if implements import instanceof int interface long native new " +
    "package private protected public return short static strictfp super switch synchronized this throw " +
    "throws transient try void volatile while true false null var yield record"
  ).split(" "),
};
