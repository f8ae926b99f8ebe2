import { rubyBare, rubyStatementLists } from "../bare/ruby.js";
import { ordinaryTypes } from "../type-notation.js";
import { rubyVersions } from "../versions/ruby.js";
import { rubyClasses } from "../classes/ruby.js";
import { ordinaryCode } from "../code-facts.js";
import { rubyImports } from "../imports/ruby.js";
import { rubyFlow } from "../flow/ruby.js";
import { rubyLinks } from "../links/namespaces.js";
import { rubyNames } from "../names/ruby.js";
import type { Language } from "../language.js";
import { ordinaryMeaning } from "../meaning-facts.js";

/** None of them may stand beside another without parentheses. */
const EQUALITIES = ["==", "!=", "===", "=~", "!~", "<=>"];

const FUNCTIONS = ["method", "singleton_method"];

export const ruby: Language = {
  ...ordinaryCode,
  ...ordinaryMeaning,
  id: "ruby",
  title: "Ruby",
  grammar: "tree-sitter-ruby",
  extensions: [".rb", ".rake", ".gemspec", ".ru"],
  interpreters: ["ruby", "jruby"],
  fileNames: ["Rakefile", "Gemfile", "Guardfile", "Vagrantfile", "Capfile"],
  fences: ["rb", "ruby"],
  speaks: ["ruby"],
  imports: rubyImports,
  binding: rubyNames,
  links: rubyLinks,
  flow: rubyFlow,
  classFacts: rubyClasses,
  versions: rubyVersions,
  contexts: [
    { name: "statement", before: "", after: "" },
    { name: "expression", before: "(", after: ")" },
    { name: "member", before: "class Uvran\n", after: "\nend" },
    { name: "file", before: "", after: "" },
    { name: "import", before: "", after: "" },
    { name: "type", before: "", after: "" },
    { name: "parameter", before: "def uvran(", after: ")\nend" },
  ],
  holes: {
    name: ["hole", "Hole"],
    expression: ["hole"],
    type: ["Hole"],
    operator: ["+", "=", "+="],
    text: ["hole"],
    statement: ["hole"],
    statements: ["hole"],
    arguments: ["hole"],
    parameters: ["hole"],
    members: ["hole"],
  },
  comments: ["comment"],
  layout: ["heredoc_body", "empty_statement"],
  lineComments: ["#"],
  lineBreaksMatter: true,
  assumedVersion: "2.7",
  argumentPlace: (argument) =>
    argument.is(["pair", "hash_splat_argument"])
      ? "named"
      : argument.is(["block_argument", "comment"])
        ? "anywhere"
        : "ahead",
  indentUnit: "  ",
  multiLineLiterals: ["string", "heredoc_body", "regex", "subshell", "string_array", "symbol_array"],
  strings: ["string"],
  optionalTokens: { argument_list: [","], array: [","], hash: [","] },
  optionalBrackets: ["argument_list", "method_parameters"],
  heredocStarts: ["heredoc_beginning"],
  heredocBodies: ["heredoc_body"],
  mirrored: {},
  parenthesized: "parenthesized_statements",
  bare: rubyBare,
  neverSideBySide: EQUALITIES.map((one) => [one, EQUALITIES] as const),
  binary: ["binary"],
  expressionStatement: "",
  statementLists: rubyStatementLists,
  memberLists: ["body_statement"],
  argumentLists: ["argument_list"],
  parameterLists: ["method_parameters", "lambda_parameters", "block_parameters"],
  modifiers: [],
  spreads: ["splat_argument", "hash_splat_argument"],
  notExpressions: ["splat_argument", "hash_splat_argument", "block_argument", "pair"],
  names: ["identifier", "constant", "instance_variable", "class_variable", "global_variable"],

  variables: ["identifier"],
  functions: FUNCTIONS,
  delayed: [...FUNCTIONS, "lambda", "block", "do_block"],
  stores: ["array", "hash", "pair", "hash_splat_argument", "setter"],
  handsOn: ["splat_argument"],
  takesApart: ["left_assignment_list", "array_pattern", "hash_pattern", "find_pattern"],
  types: { ...ordinaryTypes, maker: "new" },
  calls: ["call", "super", "yield"],
  memberReads: ["call"],
  indexReads: ["element_reference"],
  changingOperators: ["<<"],
  reflection: ["binding", "eval", "instance_eval", "class_eval", "local_variables"],
  suspensions: ["yield"],
  augmented: ["operator_assignment"],
  plainValues: ["integer", "float", "string", "simple_symbol"],
  literals: ["integer", "float", "string", "string_content", "simple_symbol", "nil", "true", "false", "self"],
  combinations: ["parenthesized_statements", "conditional"],
  classes: ["class", "module", "singleton_class"],
  quietOperators: [],
  plainTypes: "String Integer Float Symbol".split(" "),
  textParts: ["interpolation"],
  reads: { names: "method", members: "any", plainItems: [] },
  nullTestsAskClass: true,
  // `nil?` ends in no letter, so that a word's end says nothing.
  definesFunction: (name) =>
    new RegExp(
      `\\bdef\\s+(\\w+\\.)?${name}(?![\\w?!=])|\\b(define_method|define_singleton_method|alias_method|alias|def_delegators?|attr_\\w+)\\b[^\\n]*:?${name}(?![\\w?!=])`,
    ),
  literalTypes: {
    string: "String",
    integer: "Integer",
    float: "Float",
    array: "Array",
    hash: "Hash",
    simple_symbol: "Symbol",
    regex: "Regexp",
  },
  builtins: (
    "alias and begin break case class def defined do else elsif end ensure false for if in module next nil " +
    "not or redo rescue retry return self super then true undef unless until when while yield p puts print " +
    "raise loop lambda proc require format rand sleep system test open select"
  ).split(" "),
};
