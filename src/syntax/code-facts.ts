import type { Obstacles } from "./masks/mask.js";
import type { SyntaxNode } from "./node.js";
import type { SyntaxTree } from "./tree.js";
import type { Bare } from "./bare-facts.js";

/** What a hole can stand for. */
export const HOLE_KINDS = [
  /** one identifier */
  "name",
  "expression",
  "type",
  /** an operator such as `==` */
  "operator",
  /** the inside of a string, or a part of it */
  "text",
  "statement",
  /** any number of statements, none included; so with all that follow */
  "statements",
  "arguments",
  "parameters",
  "members",
  /** modifiers, annotations, attributes, decorators */
  "modifiers",
] as const;
export type HoleKind = (typeof HOLE_KINDS)[number];

/** Where a snippet can stand. */
export type ContextName = "file" | "statement" | "member" | "expression" | "type" | "parameter" | "import";

/** A way to give a snippet the surroundings it needs in order to parse. */
export interface SnippetContext {
  readonly name: ContextName;
  readonly before: string;
  readonly after: string;
}

/** How code looks: what matching and rewriting need to know of a language. */
export interface CodeFacts {
  /** Surroundings in which a snippet is tried, in this order, when its author names none. */
  readonly contexts: readonly SnippetContext[];
  /**
   * How a hole is spelt so that the grammar takes it for what it stands for: `hole` and `Hole` become a name.
   * The first spelling that parses counts; for operators each that parses is an alternative. A kind that is
   * not here has no place in the language.
   */
  readonly holes: Readonly<Partial<Record<HoleKind, readonly string[]>>>;

  /** Nodes that are an error when nothing is in them, although the grammar lets them be. */
  readonly neverEmpty: readonly string[];
  /** What may be hidden from the parser where it cannot read a file whole. */
  readonly obstacles: Obstacles;
  /** The same for the cells of a notebook. */
  readonly cellObstacles: Obstacles;
  /** Does the grammar take for an error what compilers accept, such as macros? */
  readonly grammarIsPartial: boolean;
  readonly comments: readonly string[];
  /** Named nodes that are nothing but layout, such as a backslash at the end of a line. */
  readonly layout: readonly string[];
  /** Nodes that are layout where they are blank, and mean something else where they are not. */
  readonly layoutWhenBlank: readonly string[];
  /** A comment that starts with one of these ends with its line, so code cannot follow it there. */
  readonly lineComments: readonly string[];
  /** Is a line break inside an expression an error unless brackets are open around it? */
  readonly lineBreaksMatter: boolean;
  /** Version of the language that every project may be expected to run on, where nothing says which one. */
  readonly assumedVersion: string;
  /** Code behind which indented statements can stand, where indentation makes a block. */
  readonly nested?: string;
  /** What is wrong with the lines of a file although the grammar takes them, told without places. */
  layoutFaults?(tree: SyntaxTree): ReadonlySet<string>;
  /**
   * Where arguments may have names: does this one have one, must it then stand ahead of those that have, or may it stand
   * anywhere?
   */
  argumentPlace?(argument: SyntaxNode): "named" | "ahead" | "anywhere";
  /** Used when a file has no indentation of its own to learn from. */
  readonly indentUnit: string;
  /** Literals whose inner line breaks belong to their value. */
  readonly multiLineLiterals: readonly string[];
  /** String literals, whose quote style does not count when code is compared. */
  readonly strings: readonly string[];
  /** Tokens that may be left out without a change of meaning, by the kind of the node they stand in. */
  readonly optionalTokens: Readonly<Record<string, readonly string[]>>;
  /** Nodes whose brackets may be left out without a change of meaning. */
  readonly optionalBrackets: readonly string[];
  /** Names that are a key and its value, and the kind of node that spells both out. */
  readonly shortForms: Readonly<Record<string, string>>;
  /** Blocks whose braces may be left out around a single statement, where a branch or a loop has one. */
  readonly optionalBraces: readonly string[];
  /** Tokens whose text follows further down, on lines of its own. */
  readonly heredocStarts: readonly string[];
  /** The nodes with that text, in the order of the tokens. */
  readonly heredocBodies: readonly string[];
  /** Nodes to which the grammar counts white space behind them, and which Uvran cuts off before it. */
  readonly withLineEnd: readonly string[];
  /** Kinds that are taken out of the tree where they have a single child. */
  readonly chains: readonly string[];
  /** Kinds of names that hold a token where the name is also a word of the language (`from`): the token is taken out. */
  readonly wordNames: readonly string[];
  /** Kinds that are another name for the same thing in another place. */
  readonly sameKinds: Readonly<Record<string, string>>;
  /** Where upper and lower case are the same: nowhere, in keywords and the `caseless` leaves, or everywhere. */
  readonly ignoresCase: "nowhere" | "keywords" | "everywhere";
  readonly caseless: readonly string[];
  /** Operators whose two sides may be swapped without a change of meaning. */
  readonly commutative: readonly string[];
  /** May a hyphen stand in a name, as in `Get-Hive`? */
  readonly namesHaveHyphens: boolean;
  /** Comparisons, with those that say the same where the two sides are swapped; none where the left side decides. */
  readonly mirrored: Readonly<Record<string, string>>;
  /** Kind of a parenthesised expression. */
  readonly parenthesized: string;
  /** Parentheses around this node change what the code around it means, so they are never redundant. */
  parenthesesMatter(inner: SyntaxNode): boolean;
  /** Operators that may not stand side by side without parentheses, although the grammar lets them. */
  readonly neverSideBySide: readonly (readonly [string, readonly string[]])[];
  /**
   * Kinds that bind tighter than any operator, with the kinds that the grammar wrongly gives them as their first
   * part: `a && b!` is no `(a && b)!`.
   */
  readonly misreads: Readonly<Record<string, readonly string[]>>;
  /**
   * What the grammar takes into a pattern although it stands behind the test that has the pattern: `x is null || y` is no
   * `x is (null || y)`. With the operators of which that is so, and those that bind tighter than each.
   */
  readonly swallowed?: {
    readonly test: string;
    readonly pattern: string;
    readonly binary: string;
    readonly operators: Readonly<Record<string, readonly string[]>>;
  };
  /** What needs parentheses in places where the grammar takes it without. */
  readonly bare: readonly Bare[];
  readonly binary: readonly string[];
  /** Named nodes that are operators; the others are tokens. */
  readonly operators: readonly string[];

  /** Does a node look like a statement to the grammar where it is none, as what `<?=` prints? */
  isNoStatement(node: SyntaxNode): boolean;
  /** The statement that is nothing but an expression; empty where every expression is a statement. */
  readonly expressionStatement: string;
  /** Nodes whose children are statements. */
  readonly statementLists: readonly string[];
  /** Nodes whose children are the members of a class or the like. */
  readonly memberLists: readonly string[];
  /** Ends a statement on its line, so that another may follow there. */
  readonly statementSeparator: string;
  /** Nodes whose children are the arguments of a call. */
  readonly argumentLists: readonly string[];
  readonly parameterLists: readonly string[];
  /** Nodes whose children are modifiers. Where there are none, modifiers stand beside what they modify. */
  readonly modifierLists: readonly string[];
  /** What can stand among modifiers; tokens too. */
  readonly modifiers: readonly string[];
  /** Nodes that stand where an expression could but are not one (`...x`, `key=value`). */
  readonly notExpressions: readonly string[];
  /** Arguments and items that stand for any number of them (`...jars`, `*jars`). */
  readonly spreads: readonly string[];
  /** Nodes that are names. */
  readonly names: readonly string[];
}

/** What holds for most languages, and what most have nothing of. */
export const ordinaryCode = {
  layout: [],
  layoutWhenBlank: [],
  optionalBrackets: [],
  shortForms: {},
  optionalBraces: [],
  heredocStarts: [],
  heredocBodies: [],
  withLineEnd: [],
  chains: [],
  wordNames: [],
  sameKinds: {},
  ignoresCase: "nowhere",
  caseless: [],
  parenthesesMatter: () => false,
  isNoStatement: () => false,
  neverSideBySide: [],
  misreads: {},
  bare: [],
  operators: [],
  modifierLists: [],
  neverEmpty: [],
  obstacles: [],
  cellObstacles: [],
  grammarIsPartial: false,
  lineBreaksMatter: false,
  commutative: [],
  namesHaveHyphens: false,
  mirrored: { "<": ">", ">": "<", "<=": ">=", ">=": "<=" },
  statementSeparator: ";",
} satisfies Partial<CodeFacts>;
