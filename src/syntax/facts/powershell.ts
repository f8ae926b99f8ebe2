import { powershellVersions } from "../versions/powershell.js";
import { powershellClasses } from "../classes/powershell.js";
import { ordinaryCode } from "../code-facts.js";
import { powershellImports } from "../imports/powershell.js";
import { powershellFlow } from "../flow/powershell.js";
import { powershellLinks } from "../links/namespaces.js";
import { powershellNames } from "../names/powershell.js";
import type { Language } from "../language.js";
import { ordinaryMeaning } from "../meaning-facts.js";

/** The grammar has a level of its own for each rank of operators, and the same again for arguments. */
const ranks = [
  "logical",
  "null_coalesce",
  "bitwise",
  "comparison",
  "additive",
  "multiplicative",
  "format",
  "range",
];
const OPERATIONS = ranks.map((rank) => `${rank}_expression`);

const FUNCTIONS = ["function_statement", "class_method_definition", "script_block_expression"];

export const powershell: Language = {
  ...ordinaryCode,
  ...ordinaryMeaning,
  id: "powershell",
  title: "PowerShell",
  grammar: "tree-sitter-powershell",
  extensions: [".ps1", ".psm1", ".psd1"],
  fences: ["ps1", "powershell", "pwsh"],
  speaks: ["powershell"],
  imports: powershellImports,
  binding: powershellNames,
  links: powershellLinks,
  flow: powershellFlow,
  classFacts: powershellClasses,
  versions: powershellVersions,
  contexts: [
    { name: "statement", before: "", after: "" },
    { name: "file", before: "", after: "\nuvran" },
    { name: "expression", before: "(", after: ")" },
    { name: "member", before: "class Uvran {\n", after: "\n}" },
    { name: "import", before: "", after: "" },
    { name: "type", before: "[", after: "]$uvran" },
    { name: "parameter", before: "function uvran(", after: ") {}" },
  ],
  holes: {
    name: ["hole", "$hole"],
    expression: ["$hole"],
    type: ["Hole"],
    operator: ["-eq", "=", "+", "-and"],
    text: ["hole"],
    statement: ["hole"],
    statements: ["hole"],
    arguments: ["$hole"],
    parameters: ["$hole"],
    members: ["$hole"],
    modifiers: ["[Hole()]"],
  },
  grammarIsPartial: true,
  comments: ["comment"],
  layout: ["empty_statement"],
  layoutWhenBlank: ["command_argument_sep"],
  lineComments: ["#"],
  lineBreaksMatter: true,
  assumedVersion: "5.1",
  indentUnit: "    ",
  multiLineLiterals: [
    "expandable_string_literal",
    "expandable_here_string_literal",
    "verbatim_string_characters",
    "verbatim_here_string_characters",
  ],
  strings: ["expandable_string_literal", "verbatim_string_characters"],
  optionalTokens: {},
  withLineEnd: [
    "command",
    "command_elements",
    "pipeline",
    "pipeline_chain",
    "assignment_expression",
    "flow_control_statement",
    "statement_list",
    "script_block_body",
    "script_block",
  ],
  chains: [
    ...OPERATIONS,
    "pipeline",
    "pipeline_chain",
    "array_literal_expression",
    "unary_expression",
    "argument_expression",
    "left_assignment_expression",
    "string_literal",
    "integer_literal",
    "script_block_body",
    "ternary_expression",
    "assignment_value",
  ],
  sameKinds: {
    ...Object.fromEntries(
      [...ranks, "ternary"].map((rank) => [`${rank}_argument_expression`, `${rank}_expression`]),
    ),
    verbatim_string_characters: "expandable_string_literal",
  },
  ignoresCase: "everywhere",
  parenthesized: "parenthesized_expression",
  binary: OPERATIONS,
  operators: ["comparison_operator", "assignment_operator"],
  expressionStatement: "",
  statementLists: ["statement_list"],
  memberLists: ["class_statement"],
  argumentLists: ["argument_expression_list", "command_elements"],
  parameterLists: ["parameter_list", "class_method_parameter_list"],
  modifiers: ["attribute_list", "attribute", "class_attribute"],
  notExpressions: ["command_parameter"],
  names: ["variable", "simple_name", "command_name", "function_name", "generic_token", "type_identifier"],

  variables: ["variable"],
  functions: FUNCTIONS,
  delayed: FUNCTIONS,
  exits: ["flow_control_statement"],
  calls: ["command", "invocation_expression"],
  memberReads: ["member_access"],
  indexReads: ["element_access"],
  reflection: ["Get-Variable", "Set-Variable", "Invoke-Expression", "iex"],
  definesFunction: (name) =>
    new RegExp(`\\b(function|filter)\\s+(\\w+:)?${name}\\b|Alias\\s+.*\\b${name}\\b`, "i"),
  plainValues: ["decimal_integer_literal", "string_literal"],
  literals: ["decimal_integer_literal", "string_literal", "verbatim_string_characters"],
  classes: ["class_statement"],
  builtins: [
    "$_",
    "$args",
    "$input",
    "$this",
    "$null",
    "$true",
    "$false",
    "$PSItem",
    "$Error",
    "$Host",
    "$Matches",
  ],
};
