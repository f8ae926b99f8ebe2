import { ordinaryMissing, jump, ordinaryFlow, shortCircuits, type FlowFacts } from "../flow-facts.js";
import type { SyntaxNode } from "../node.js";

const bodyFirst = (node: SyntaxNode): boolean => node.child("body")?.is("begin") ?? false;

/** Clauses that stand behind the statements of a body, and are none of them. */
const CLAUSES = ["rescue", "ensure", "else"];
/** What comes to what the last of its statements, or the one that was run, comes to. */
const GOES_ON =
  /^(?:body_statement|block_body|then|else|elsif|if|unless|if_modifier|unless_modifier|conditional|case|when|case_match|in_clause|begin|rescue|parenthesized_statements)$/;
const NOTHING = [
  "program",
  "class",
  "module",
  "singleton_class",
  "ensure",
  "while",
  "until",
  "for",
  "while_modifier",
  "until_modifier",
];

/** Upwards from a statement, as long as it is the last of what is around it. */
function takerOf(statement: SyntaxNode): SyntaxNode | undefined {
  for (let at = statement; at.parent; at = at.parent) {
    const { parent, nextPart } = at;
    // A test is looked at, whatever becomes of the branch.
    if (["condition", "value"].includes(at.field ?? "")) return parent;
    if (parent.is(NOTHING) || parent.is("do")) return undefined;
    // `new` and an assignment give something else than what these come to.
    if (parent.is("method"))
      return /^initialize$|=$/.test(parent.child("name")?.text ?? "") ? undefined : parent;
    if (!GOES_ON.test(parent.kind)) return parent;
    const isList = parent.is([
      "body_statement",
      "block_body",
      "then",
      "else",
      "begin",
      "parenthesized_statements",
    ]);
    if (isList && !at.is(CLAUSES) && nextPart && !nextPart.is(CLAUSES)) return undefined;
  }
  return undefined;
}

/** `x.is_a?(Array)`, `Array === x`. */
function testedForList(test: SyntaxNode): SyntaxNode | undefined {
  if (test.is("binary")) {
    const isAsked = test.child("operator")?.text === "===" && test.firstPart?.text === "Array";
    return isAsked ? test.lastPart : undefined;
  }
  if (!test.is("call") || !/^(?:is_a\?|kind_of\?)$/.test(test.child("method")?.text ?? "")) return undefined;
  const [asked, ...more] = test.child("arguments")?.parts ?? [];
  return asked?.text === "Array" && more.length === 0 ? test.child("receiver") : undefined;
}

/** `return` in a block leaves the method, where the block is no lambda and no method of its own. */
function leavesBlocks(jump: SyntaxNode): readonly string[] {
  if (!jump.is("return")) return [];
  const call = jump.closest(["block", "do_block"])?.parent;
  const isOwn =
    call?.is("lambda") === true ||
    /^(lambda|define_method|define_singleton_method)$/.test(call?.child("method")?.text ?? "");
  return isOwn ? [] : ["block", "do_block"];
}

/** Does a bare name raise, or end the program? Not where something of the file has that name. */
function isBareRaise(name: SyntaxNode): boolean {
  const { text, tree, parent } = name;
  if (!/^(raise|fail|exit!?|abort)$/.test(text) || name.field === "method" || parent?.is("method_parameters"))
    return false;
  const word = `(?<!\\w)${text}(?![\\w?!])`;
  const given = new RegExp(`${word}\\s*(=[^=~>]|,.*=)|\\|[^|\\n]*${word}[^|\\n]*\\||\\bdef\\s.*${word}`);
  return !given.test(tree.text);
}

/** How control moves in Ruby. A block may run any number of times. */
export const rubyFlow: FlowFacts = {
  ...ordinaryFlow,
  shapes: {
    if: { is: "branch", test: "condition", then: "consequence", otherwise: "alternative" },
    elsif: { is: "branch", test: "condition", then: "consequence", otherwise: "alternative" },
    unless: { is: "branch", test: "condition", then: "consequence", otherwise: "alternative", negated: true },
    if_modifier: { is: "branch", test: "condition", then: "body" },
    unless_modifier: { is: "branch", test: "condition", then: "body", negated: true },
    conditional: { is: "branch", test: "condition", then: "consequence", otherwise: "alternative" },
    while: { is: "loop", test: "condition", body: "body" },
    until: { is: "loop", test: "condition", body: "body", negated: true },
    while_modifier: { is: "loop", test: "condition", body: "body", bodyFirst },
    until_modifier: { is: "loop", test: "condition", body: "body", negated: true, bodyFirst },
    for: { is: "each", over: "value", target: "pattern", body: "body" },
    block: { is: "each", over: "none", target: "parameters", body: "body" },
    do_block: { is: "each", over: "none", target: "parameters", body: "body" },
    case: {
      is: "choice",
      value: "value",
      ways: ["when", "else"],
      labels: "pattern",
      isDefault: (way) => way.is("else"),
    },
    case_match: {
      is: "choice",
      value: "value",
      ways: ["in_clause", "else"],
      labels: "pattern",
      exhaustive: true,
      isDefault: (way) => way.is("else"),
    },
    begin: tries,
    body_statement: tries,
    rescue_modifier: { is: "try", handlers: [], swallows: true },
    return: jump("return"),
    break: jump("break"),
    next: jump("continue"),
    redo: jump("anywhere"),
    retry: jump("anywhere"),
    identifier: (node) => (isBareRaise(node) ? jump("throw") : undefined),
    call: (node) =>
      !node.child("receiver") && /^(raise|throw|exit!?|abort|fail)$/.test(node.child("method")?.text ?? "")
        ? jump("throw")
        : undefined,
    binary: shortCircuits({ "&&": "true", "||": "false", and: "true", or: "false" }),
    unary: (node) =>
      /^(!|not)$/.test(node.child("operator")?.text ?? "")
        ? { is: "negation", operators: ["!", "not"] }
        : undefined,
  },
  assignments: {
    assignment: { target: "left", value: "right" },
    operator_assignment: { target: "left", value: "right" },
  },
  wrappers: [],
  lastIsGiven: true,
  takerOf,
  leavesBlocks,
  neverReturn: [
    "Process.exit",
    "Process.exit!",
    "Process.abort",
    "Kernel.exit",
    "Kernel.raise",
    "Kernel.abort",
  ],
  runsBlocks:
    /^(?:each(?:_\w+)?|reverse_each|times|upto|downto|step|loop|tap|then|yield_self|(?:flat_|filter_)?map!?|collect(?:_concat)?!?|select!?|filter!?|reject!?|delete_if|keep_if|find(?:_all|_index)?|detect|index|inject|reduce|any\?|all\?|none\?|one\?|sum|count|(?:min|max|minmax|sort|group|chunk|uniq)(?:_by)?!?|partition|zip|(?:take|drop)_while|to_h|transform_(?:keys|values)!?|fetch|dig|gsub!?|sub!?|scan|synchronize|transaction|open|chdir)$/,
  walksByBlock: /^(?:each(?:_\w+)?|reverse_each|times|upto|downto|step|loop|tap)$/,
  assignsIf: { "||=": "false", "&&=": "true" },
  chains: ["call", "element_reference"],
  chainBreaks: ["&."],
  safeStep: { tokens: { ".": "&.", "&.": "&." }, brackets: {}, reachesOn: false, bars: () => false },
  comparesMissing: { toFalse: ["=="], toTrue: ["!="] },
  mayThrow: [
    "call",
    "identifier",
    "element_reference",
    "binary",
    "unary",
    "yield",
    "super",
    "scope_resolution",
  ],
  counting: { ...ordinaryFlow.counting, lengthMembers: ["length", "size"] },
  collecting: {
    containers: [
      {
        is: "list",
        empty: /^(?:\[\s*\]|Array\.new(?:\(\s*\))?)$/,
        adds: ["push", "append"],
        addOperators: ["<<"],
      },
      { is: "map", empty: /^(?:\{\s*\}|Hash\.new(?:\(\s*\))?)$/, adds: [], addOperators: [] },
    ],
    walkers: ["each"],
    lists: { named: "Array", testedBy: testedForList },
  },
  missing: {
    ...ordinaryMissing,
    literals: ["nil"],
    equal: ["=="],
    unequal: ["!="],
    questions: { "nil?": { isThere: false, asks: "missing", of: "receiver" } },
    keys: {
      "key?": { collection: "receiver", key: 0 },
      "has_key?": { collection: "receiver", key: 0 },
      "include?": { collection: "receiver", key: 0 },
      "member?": { collection: "receiver", key: 0 },
    },
    itemReads: ["fetch"],
    keyErrors: ["KeyError", "IndexError"],
    itemWrites: ["store"],
    truthIsPresence: true,
    typeTests: [],
    present: [],
    missing: ["nil?"],
    givenBack: ["closed?"],
    creations: ["string", "array", "hash", "integer", "float", "lambda", "simple_symbol", "regex"],
    readsThrow: false,
  },
  label: () => undefined,
};

function tries(): { is: "try"; handlers: string[]; otherwise: string; lastly: string } {
  return { is: "try", handlers: ["rescue"], otherwise: "else", lastly: "ensure" };
}
