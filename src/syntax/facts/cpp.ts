import { ordinaryTypes } from "../type-notation.js";
import { conditionals } from "../masks/conditionals.js";
import { macros } from "../masks/macros.js";
import { cppVersions } from "../versions/cpp.js";
import { cppClasses } from "../classes/cpp.js";
import { ordinaryCode } from "../code-facts.js";
import { cppImports } from "../imports/cpp.js";
import { cppFlow } from "../flow/cpp.js";
import { cppLinks } from "../links/cpp.js";
import { cppNames } from "../names/cpp.js";
import type { Language } from "../language.js";
import { ordinaryMeaning } from "../meaning-facts.js";

const FUNCTIONS = ["function_definition", "lambda_expression"];

export const cpp: Language = {
  ...ordinaryCode,
  ...ordinaryMeaning,
  id: "cpp",
  title: "C++",
  grammar: "tree-sitter-cpp",
  extensions: [".cpp", ".cc", ".cxx", ".c++", ".hpp", ".hh", ".hxx", ".h", ".ipp", ".tpp", ".inl"],
  fences: ["cpp", "c++", "cc", "cxx", "hpp"],
  speaks: ["cpp"],
  imports: cppImports,
  binding: cppNames,
  links: cppLinks,
  flow: cppFlow,
  classFacts: cppClasses,
  versions: cppVersions,
  contexts: [
    { name: "statement", before: "void uvran() {\n", after: "\n}" },
    { name: "expression", before: "auto uvran = ", after: ";" },
    { name: "member", before: "class Uvran {\n", after: "\n};" },
    { name: "file", before: "", after: "\n" },
    { name: "import", before: "", after: "\n" },
    { name: "type", before: "", after: " uvran;" },
    { name: "type", before: "using Uvran = ", after: ";" },
    { name: "parameter", before: "void uvran(", after: ");" },
  ],
  holes: {
    name: ["hole"],
    expression: ["hole"],
    type: ["Hole"],
    operator: ["+", "=", "->", "++"],
    text: ["hole"],
    statement: ["hole();"],
    statements: ["hole();"],
    arguments: ["hole"],
    parameters: ["Hole hole"],
    members: ["Hole hole;"],
    modifiers: ["static", "const", "virtual", "[[hole]]"],
  },
  grammarIsPartial: true,
  obstacles: [conditionals, macros],
  comments: ["comment"],
  lineComments: ["//"],
  optionalBraces: ["compound_statement"],
  assumedVersion: "14",
  indentUnit: "  ",
  multiLineLiterals: ["raw_string_literal", "string_literal", "preproc_def", "preproc_function_def"],
  strings: ["string_literal"],
  optionalTokens: { initializer_list: [","], enumerator_list: [","] },
  withLineEnd: ["preproc_include", "preproc_def", "preproc_function_def", "preproc_call"],
  commutative: ["==", "!="],
  parenthesized: "parenthesized_expression",
  binary: ["binary_expression"],
  expressionStatement: "expression_statement",
  statementLists: [
    "compound_statement",
    "case_statement",
    "translation_unit",
    "declaration_list",
    "preproc_if",
    "preproc_ifdef",
    "preproc_else",
    "preproc_elif",
  ],
  memberLists: ["field_declaration_list", "enumerator_list"],
  argumentLists: ["argument_list", "initializer_list"],
  parameterLists: ["parameter_list"],
  modifiers: [
    "storage_class_specifier",
    "type_qualifier",
    "attribute_declaration",
    "attribute_specifier",
    "virtual",
    "explicit_function_specifier",
    "virtual_specifier",
  ],
  spreads: ["parameter_pack_expansion"],
  notExpressions: ["type_descriptor", "primitive_type", "type_identifier"],
  names: ["identifier", "field_identifier", "type_identifier", "namespace_identifier"],

  variables: ["identifier"],
  functions: FUNCTIONS,
  delayed: FUNCTIONS,
  stores: ["array_declarator", "initializer_list", "initializer_pair"],
  handsOn: ["cast_expression"],
  takesApart: ["structured_binding_declarator"],
  types: {
    ...ordinaryTypes,
    declarators: {
      function_declarator: "function",
      parameter_list: "function",
      array_declarator: "many",
      pointer_declarator: "pointer",
    },
    around: ["template_type"],
    composed: ["union_specifier", "function_declarator", "array_declarator"],
    creations: { new_expression: "type" },
  },
  calls: ["call_expression", "new_expression", "delete_expression"],
  memberReads: ["field_expression"],
  indexReads: ["subscript_expression"],
  indexLists: ["subscript_argument_list"],
  suspensions: ["co_await_expression", "co_yield_statement"],
  augmented: ["update_expression"],
  plainValues: ["number_literal", "string_literal", "true", "false"],
  literals: [
    "number_literal",
    "string_literal",
    "string_content",
    "char_literal",
    "true",
    "false",
    "null",
    "this",
  ],
  combinations: ["parenthesized_expression", "sizeof_expression"],
  classes: ["class_specifier", "struct_specifier", "union_specifier"],
  quietOperators: [],
  pointers: { steps: ["->"], signs: { pointer_expression: "*" } },
  plainTypes: "int long short char float double bool size_t unsigned".split(" "),
  reads: { names: "macro", members: "arrow", plainItems: "pointers" },
  nullTestsAskClass: true,
  definesFunction: (name) =>
    new RegExp(
      `(^|[\\w*&>]\\s+|[*&])(\\w+::)*${name}\\s*\\([^;{}]*\\)[^;{}]*\\{|#\\s*define\\s+${name}\\b`,
      "m",
    ),
  literalTypes: { true: "bool", false: "bool" },
  builtins: (
    "alignas alignof and asm auto bool break case catch char class const constexpr const_cast continue " +
    "decltype default delete do double dynamic_cast else enum explicit export extern false final float for " +
    "friend goto if inline int long mutable namespace new noexcept not nullptr operator or override private " +
    "protected public register reinterpret_cast return short signed sizeof static static_assert static_cast " +
    "struct switch template this throw true try typedef typeid typename union unsigned using virtual void " +
    "volatile wchar_t while xor std"
  ).split(" "),
};
