import { csharpBare } from "../bare/csharp.js";
import { ordinaryTypes } from "../type-notation.js";
import { conditionals } from "../masks/conditionals.js";
import { csharpVersions } from "../versions/csharp.js";
import { csharpClasses } from "../classes/csharp.js";
import { ordinaryCode } from "../code-facts.js";
import { csharpImports } from "../imports/csharp.js";
import { csharpFlow } from "../flow/csharp.js";
import { csharpLinks } from "../links/namespaces.js";
import { csharpNames } from "../names/csharp.js";
import type { Language } from "../language.js";
import { ordinaryMeaning } from "../meaning-facts.js";

const FUNCTIONS = [
  "method_declaration",
  "constructor_declaration",
  "local_function_statement",
  "lambda_expression",
  "anonymous_method_expression",
  "accessor_declaration",
  "operator_declaration",
];

/** Operators that bind tighter than `&&`. */
const TIGHTER = "| ^ & == != < > <= >= << >> + - * / %".split(" ");

export const csharp: Language = {
  ...ordinaryCode,
  ...ordinaryMeaning,
  id: "csharp",
  title: "C#",
  grammar: "tree-sitter-c-sharp",
  extensions: [".cs", ".csx"],
  fences: ["cs", "csharp", "c#"],
  speaks: ["csharp"],
  imports: csharpImports,
  binding: csharpNames,
  links: csharpLinks,
  flow: csharpFlow,
  classFacts: csharpClasses,
  versions: csharpVersions,
  contexts: [
    { name: "statement", before: "class Uvran { void uvran() {\n", after: "\n} }" },
    { name: "member", before: "class Uvran {\n", after: "\n}" },
    { name: "file", before: "", after: "" },
    { name: "import", before: "", after: "" },
    { name: "expression", before: "class Uvran { object uvran = ", after: "; }" },
    { name: "type", before: "class Uvran { ", after: " uvran; }" },
    { name: "parameter", before: "class Uvran { void uvran(", after: ") {} }" },
  ],
  holes: {
    name: ["hole"],
    expression: ["hole"],
    type: ["Hole"],
    operator: ["+", "=", "??", "++"],
    text: ["hole"],
    statement: ["hole();"],
    statements: ["hole();"],
    arguments: ["hole"],
    parameters: ["Hole hole"],
    members: ["Hole hole;", "Hole()"],
    modifiers: ["[Hole]"],
  },
  grammarIsPartial: true,
  obstacles: [conditionals],
  comments: ["comment"],
  lineComments: ["//"],
  optionalBraces: ["block"],
  assumedVersion: "7.3",
  argumentPlace: (argument) =>
    argument.is("argument") && argument.child("name")
      ? "named"
      : argument.is("comment")
        ? "anywhere"
        : "ahead",
  indentUnit: "    ",
  multiLineLiterals: ["verbatim_string_literal", "raw_string_literal", "interpolated_string_expression"],
  strings: ["string_literal"],
  optionalTokens: { initializer_expression: [","], enum_member_declaration_list: [","] },
  chains: ["global_statement", "argument", "attribute_argument"],
  wordNames: ["identifier"],
  commutative: ["==", "!="],
  parenthesized: "parenthesized_expression",
  parenthesesMatter: (inner) => inner.is(["conditional_access_expression"]) || inner.has("?."),
  swallowed: {
    test: "is_pattern_expression",
    pattern: "constant_pattern",
    binary: "binary_expression",
    operators: { "||": ["&&", ...TIGHTER], "&&": TIGHTER },
  },
  misreads: {
    conditional_access_expression: [
      "binary_expression",
      "prefix_unary_expression",
      "await_expression",
      "cast_expression",
    ],
  },
  binary: ["binary_expression"],
  bare: csharpBare,
  expressionStatement: "expression_statement",
  statementLists: ["block", "switch_section", "compilation_unit"],
  memberLists: ["declaration_list", "enum_member_declaration_list"],
  argumentLists: ["argument_list", "bracketed_argument_list", "attribute_argument_list"],
  parameterLists: ["parameter_list"],
  modifiers: ["attribute_list", "modifier"],
  spreads: [],
  notExpressions: ["argument", "predefined_type", "declaration_expression"],
  names: ["identifier", "implicit_parameter"],

  variables: ["identifier"],
  functions: FUNCTIONS,
  delayed: FUNCTIONS,
  stores: [
    "object_creation_expression",
    "array_creation_expression",
    "initializer_expression",
    "tuple_expression",
    "tuple_element",
    "array_rank_specifier",
  ],
  handsOn: ["as_expression", "cast_expression", "await_expression"],
  takesApart: [
    "tuple_pattern",
    "tuple_expression",
    "tuple_element",
    "list_pattern",
    "recursive_pattern",
    "declaration_pattern",
    "var_pattern",
    "is_pattern_expression",
  ],
  types: {
    ...ordinaryTypes,
    declarators: { parameter_list: "function" },
    arrays: ["array_type"],
    around: ["generic_name", "nullable_type", "pointer_type"],
    composed: ["tuple_type", "array_type", "function_pointer_type"],
    creations: {
      object_creation_expression: "type",
      array_creation_expression: "type",
      implicit_array_creation_expression: "type",
    },
  },
  calls: ["invocation_expression", "object_creation_expression", "implicit_object_creation_expression"],
  memberReads: ["member_access_expression", "conditional_access_expression"],
  indexReads: ["element_access_expression"],
  reflection: [],
  suspensions: ["await_expression", "yield_statement"],
  resourceBlocks: ["using_statement", "lock_statement"],
  augmented: ["postfix_unary_expression", "prefix_unary_expression"],
  plainValues: ["integer_literal", "string_literal", "boolean_literal"],
  literals: [
    "integer_literal",
    "real_literal",
    "string_literal",
    "string_literal_content",
    "boolean_literal",
    "null_literal",
    "character_literal",
    "this",
  ],
  combinations: ["parenthesized_expression", "conditional_expression", "is_pattern_expression"],
  constructors: ["constructor_declaration"],
  classes: ["class_declaration", "struct_declaration", "interface_declaration", "record_declaration"],
  quietOperators: "?? is as".split(" "),
  plainTypes:
    "int uint long ulong short ushort byte sbyte char float double decimal bool string String Int32 Int64 Boolean Double".split(
      " ",
    ),
  textParts: ["interpolation"],
  reads: { names: "property", members: "property", plainItems: ["string"] },
  nullTestsAskClass: true,
  markedLiterals: {
    string_literal: [[/u8$/i, "ReadOnlySpan"]],
    integer_literal: [
      [/(ul|lu)$/i, "ulong"],
      [/l$/i, "long"],
      [/u$/i, "uint"],
      // What is too large for an `int` is of the first type that holds it.
      [/^\d[\d_]{9,}$|^0[xb][\da-f_]{8,}$/i, undefined],
    ],
  },
  literalTypes: { string_literal: "string", integer_literal: "int", boolean_literal: "bool" },
  asyncMarks: ["async", "await"],
  builtins: (
    "abstract as base bool break byte case catch char checked class const continue decimal default delegate " +
    "do double else enum event explicit extern false finally fixed float for foreach goto if implicit in int " +
    "interface internal is lock long namespace new null object operator out override params private " +
    "protected public readonly ref return sbyte sealed short sizeof stackalloc static string struct switch " +
    "this throw true try typeof uint ulong unchecked unsafe ushort using virtual void volatile while var " +
    "value dynamic nameof when await async yield"
  ).split(" "),
};
