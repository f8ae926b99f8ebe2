import type { Bare } from "../bare-facts.js";
import type { SyntaxNode } from "../node.js";

/** Lists of statements. */
export const rubyStatementLists = [
  "program",
  "body_statement",
  "then",
  "else",
  "do",
  "block_body",
  "begin",
  "ensure",
  "begin_block",
];

/** Where a whole statement may stand. */
const AS_STATEMENT = [
  ...rubyStatementLists,
  "parenthesized_statements",
  "interpolation",
  "if",
  "unless",
  "elsif",
  "while",
  "until",
  "if_modifier",
  "unless_modifier",
  "while_modifier",
  "until_modifier",
  "rescue_modifier",
];

const byWord = (node: SyntaxNode): boolean => node.has("and") || node.has("or") || node.has("not");

/** `f a, b`: a call whose arguments no parentheses hold together. */
const isCommand = (node: SyntaxNode): boolean => {
  const list = node.child("arguments") ?? node.parts.find(({ kind }) => kind === "argument_list");
  return list !== undefined && !list.text.startsWith("(");
};

/** Words that come before all that stands behind them. */
const takesCommands = (node: SyntaxNode): boolean => node.has("!") || node.has("not");

export const rubyBare: readonly Bare[] = [
  {
    kinds: ["binary", "unary"],
    which: byWord,
    only: AS_STATEMENT,
    except: (_, parent) => byWord(parent),
  },
  {
    kinds: ["assignment", "operator_assignment"],
    which: (node) => node.child("right")?.kind === "right_assignment_list",
    only: [...AS_STATEMENT.filter((kind) => !/^(if|unless|elsif|while|until)/.test(kind)), "assignment"],
    except: (node, parent) => parent.kind.endsWith("_modifier") && node.start === parent.start,
  },
  // Behind the name of a method a brace begins a block.
  {
    kinds: ["hash"],
    never: ["argument_list", "unary"],
    except: (node, parent) =>
      parent.kind === "argument_list"
        ? node.start !== parent.start || parent.parent?.is(["return", "break", "next"]) === true
        : !takesCommands(parent) && !parent.has("defined?"),
  },
  {
    kinds: ["call", "super", "yield"],
    which: isCommand,
    never: ["unary"],
    except: (_, parent) => takesCommands(parent),
  },
  { kinds: ["test_pattern", "match_pattern"], only: AS_STATEMENT, except: (_, parent) => byWord(parent) },
  {
    kinds: ["call", "super", "yield"],
    which: isCommand,
    never: [
      "array",
      "pair",
      "optional_parameter",
      "keyword_parameter",
      "conditional",
      "splat_argument",
      "hash_splat_argument",
      "block_argument",
      "range",
      "case",
      "argument_list",
    ],
    // The only argument may be such a call.
    except: (_, parent) => parent.kind === "argument_list" && parent.parts.length === 1,
  },
];
