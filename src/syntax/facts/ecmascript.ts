import { ecmascriptBare } from "../bare/ecmascript.js";
import { ordinaryTypes } from "../type-notation.js";
import { ecmascriptVersions } from "../versions/ecmascript.js";
import { ecmascriptClasses } from "../classes/ecmascript.js";
import { ordinaryCode } from "../code-facts.js";
import { ecmascriptImports } from "../imports/ecmascript.js";
import { ecmascriptFlow } from "../flow/ecmascript.js";
import { ecmascriptLinks } from "../links/ecmascript.js";
import { ecmascriptNames } from "../names/ecmascript.js";
import type { Language } from "../language.js";
import type { SyntaxNode } from "../node.js";

/** What JavaScript, TypeScript and TSX have in common. */
export const ecmascript: Omit<Language, "id" | "title" | "grammar" | "extensions" | "fences" | "speaks"> = {
  ...ordinaryCode,
  imports: ecmascriptImports,
  binding: ecmascriptNames,
  links: ecmascriptLinks,
  flow: ecmascriptFlow,
  classFacts: ecmascriptClasses,
  versions: ecmascriptVersions,
  contexts: [
    { name: "statement", before: "", after: "" },
    { name: "file", before: "", after: "" },
    { name: "import", before: "", after: "" },
    { name: "expression", before: "(", after: ")" },
    { name: "member", before: "class Uvran {\n", after: "\n}" },
    { name: "parameter", before: "function uvran(", after: ") {}" },
  ],
  holes: {
    name: ["hole", "#hole"],
    expression: ["hole"],
    operator: ["+", "&&", "=", "+=", "++"],
    text: ["hole"],
    statement: ["hole;"],
    statements: ["hole;"],
    arguments: ["hole"],
    parameters: ["hole"],
    members: ["hole() {}"],
    modifiers: ["@hole"],
  },
  comments: ["comment", "html_comment", "hash_bang_line"],
  optionalBraces: ["statement_block"],
  shortForms: {
    shorthand_property_identifier: "pair",
    shorthand_property_identifier_pattern: "pair_pattern",
  },
  lineComments: ["//"],
  assumedVersion: "2022",
  indentUnit: "  ",
  multiLineLiterals: ["template_string", "jsx_text"],
  strings: ["string"],
  optionalTokens: {
    "*": [";"],
    arguments: [","],
    array: [","],
    object: [","],
    formal_parameters: [","],
  },
  commutative: ["==", "!=", "===", "!=="],
  parenthesized: "parenthesized_expression",
  parenthesesMatter: (inner) => endsOptionalChain(inner),
  neverSideBySide: [["??", ["||", "&&"]]],
  bare: ecmascriptBare,
  binary: ["binary_expression"],

  expressionStatement: "expression_statement",
  statementLists: ["program", "statement_block", "switch_case", "switch_default", "class_static_block"],
  memberLists: ["class_body", "interface_body", "object_type"],
  argumentLists: ["arguments"],
  parameterLists: ["formal_parameters"],
  modifiers: ["decorator", "accessibility_modifier", "override_modifier", "static", "readonly", "abstract"],
  spreads: ["spread_element"],
  notExpressions: ["spread_element"],
  names: [
    "identifier",
    "property_identifier",
    "private_property_identifier",
    "shorthand_property_identifier",
    "type_identifier",
  ],
  variables: ["identifier", "shorthand_property_identifier", "shorthand_property_identifier_pattern"],
  functions: [
    "function_declaration",
    "function_expression",
    "arrow_function",
    "method_definition",
    "generator_function",
    "generator_function_declaration",
    "class_static_block",
  ],
  constructors: [],
  classes: ["class_declaration", "class", "abstract_class_declaration"],
  delayed: [
    "function_declaration",
    "function_expression",
    "arrow_function",
    "method_definition",
    "generator_function",
    "generator_function_declaration",
  ],
  calls: ["call_expression", "new_expression"],
  memberReads: ["member_expression"],
  indexReads: ["subscript_expression"],
  indexLists: [],
  wildcardImports: [],
  reflection: ["eval", "Function"],
  suspensions: ["await_expression", "yield_expression"],
  stores: ["object", "array", "pair", "object_assignment_pattern"],
  handsOn: ["assignment_pattern", "await_expression", "spread_element"],
  takesApart: [
    "object_pattern",
    "array_pattern",
    "rest_pattern",
    "pair_pattern",
    "object_assignment_pattern",
    "shorthand_property_identifier_pattern",
  ],
  types: {
    ...ordinaryTypes,
    composed: ["array", "function_expression", "arrow_function"],
    creations: { new_expression: "constructor" },
  },
  resourceBlocks: [],
  sharing: [],
  augmented: ["augmented_assignment_expression", "update_expression"],
  plainValues: ["number", "string", "template_string"],
  literals: [
    "number",
    "string",
    "string_fragment",
    "true",
    "false",
    "null",
    "undefined",
    "regex",
    "this",
    "super",
  ],
  combinations: [
    "optional_chain",
    "parenthesized_expression",
    "non_null_expression",
    "as_expression",
    "satisfies_expression",
    "binary_expression",
    "unary_expression",
    "ternary_expression",
    "template_string",
    "template_substitution",
  ],
  quietOperators: "=== !== && || ?? ! typeof void ,".split(" "),
  changingOperators: ["delete"],
  plainTypes: "string number boolean".split(" "),
  hashing: [],
  bareCalls: [],
  textParts: ["template_substitution"],
  reads: { names: "global", members: "getter", plainItems: [] },
  namesMayBeUndefined: true,
  nullTestsAskClass: false,
  localsMayBeUnset: false,
  typesBeginUpper: false,
  typesInStrings: false,
  markedLiterals: { number: [[/n$/, "bigint"]] },
  literalTypes: {
    string: "string",
    template_string: "string",
    number: "number",
    true: "boolean",
    false: "boolean",
    array: "Array",
    regex: "RegExp",
    arrow_function: "Function",
    function_expression: "Function",
  },
  callsMakeObjects: false,
  asyncMarks: ["async", "await"],
  builtins: [],
};

/** Follows `a?.b.c()` to its start: is there a `?.` that these parentheses end? */
function endsOptionalChain(inner: SyntaxNode): boolean {
  let at: SyntaxNode | undefined = inner;
  while (at?.is(["member_expression", "subscript_expression", "call_expression", "non_null_expression"])) {
    if (at.child("optional_chain") ?? at.children.find((child) => child.kind === "?.")) return true;
    at = at.child("object") ?? at.child("function") ?? at.firstPart;
  }
  return false;
}
