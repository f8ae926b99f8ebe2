import type { SyntaxNode } from "./node.js";

/** The names of the languages Uvran reads. TSX is a dialect of TypeScript with a grammar of its own. */
export type LanguageId = "javascript" | "typescript" | "tsx" | "python";

/** What an identifier does at one place in the code. */
export type NameRole =
  /** the value of a variable is taken */
  | "read"
  /** a variable is given a value, or a declaration of it stands here */
  | "write"
  /** not a variable: a property, a keyword argument, a label, a type */
  | "other";

/** A way to give a snippet the surroundings it needs in order to parse. */
export interface SnippetContext {
  readonly name: string;
  readonly before: string;
  readonly after: string;
}

/**
 * Everything the rest of Uvran knows about one language. Matching, rewriting and analysis are written once
 * over these facts; a new language is a new value of this type.
 */
export interface Language {
  readonly id: LanguageId;
  readonly title: string;
  /** File name of the grammar without its extension. */
  readonly grammar: string;
  /** File name endings, with the dot. */
  readonly extensions: readonly string[];
  /** Patterns written in these languages are understood in files of this one. */
  readonly speaks: readonly LanguageId[];

  /** Surroundings in which a snippet is tried, in this order. */
  readonly contexts: readonly SnippetContext[];
  readonly comments: readonly string[];
  /** Named nodes that are nothing but layout, such as a backslash at the end of a line. */
  readonly layout: readonly string[];
  /** A comment of this kind ends with its line, so code cannot follow it there. */
  readonly lineComment: string;
  /** Is a line break inside an expression an error unless brackets are open around it? */
  readonly lineBreaksMatter: boolean;
  /** Used when a file has no indentation of its own to learn from. */
  readonly indentUnit: string;
  /** Literals whose inner line breaks belong to their value. */
  readonly multiLineLiterals: readonly string[];
  /** String literals, whose quote style does not count when code is compared. */
  readonly strings: readonly string[];
  /** Tokens that may be left out without a change of meaning, by the kind of the node they stand in. */
  readonly optionalTokens: Readonly<Record<string, readonly string[]>>;
  /** Kind of a parenthesised expression. */
  readonly parenthesized: string;
  /** Parentheses around this node change what the code around it means, so they are never redundant. */
  parenthesesMatter(inner: SyntaxNode): boolean;
  /** Operators that may not stand side by side without parentheses, although the grammar lets them. */
  readonly neverSideBySide: readonly (readonly [string, readonly string[]])[];
  /** Kinds that may not stand bare as an operand, although the grammar lets them. */
  readonly looseOperands: readonly string[];
  readonly binary: readonly string[];

  /** The statement that is nothing but an expression. */
  readonly expressionStatement: string;
  /** Nodes whose children are statements. */
  readonly statementLists: readonly string[];
  /** Ends a statement on its line, so that another may follow there. */
  readonly statementSeparator: string;
  /** Nodes whose children are the arguments of a call. */
  readonly argumentLists: readonly string[];
  /** Nodes that stand where an expression could but are not one (`...x`, `key=value`). */
  readonly notExpressions: readonly string[];
  /** Leaves that are names. */
  readonly names: readonly string[];
  /** Leaves that can name a variable. */
  readonly variables: readonly string[];
  readonly functions: readonly string[];
  readonly classes: readonly string[];
  /** Nodes whose names are not seen outside, beside functions and classes. */
  readonly blockScopes: readonly string[];
  /** Bodies that run later or elsewhere: functions, lambdas, lazy generators. */
  readonly delayed: readonly string[];
  /** Statements that leave a function or a loop early. */
  readonly exits: readonly string[];
  readonly calls: readonly string[];
  readonly memberReads: readonly string[];
  readonly indexReads: readonly string[];
  /** Imports that bring in names which the file does not spell out. */
  readonly wildcardImports: readonly string[];
  /** Functions that can read or change variables by their names as strings. */
  readonly reflection: readonly string[];
  /** Built-in functions that change nothing, whatever they are given. */
  readonly harmless: readonly string[];
  /** Nodes at which a function waits or hands control back. */
  readonly suspensions: readonly string[];
  /** Statements that acquire a resource for the time of a block. */
  readonly resourceBlocks: readonly string[];
  /** Declarations that make a name the one of an outer scope. */
  readonly sharing: readonly string[];
  /** Assignments that change the old value (`+=`). */
  readonly augmented: readonly string[];
  /** Literals of numbers and strings. */
  readonly plainValues: readonly string[];
  /** Nodes that evaluate to a value fixed in the source. */
  readonly literals: readonly string[];
  /** Nodes that only combine the values below them. */
  readonly combinations: readonly string[];
  /** Names that exist without a declaration, which a fresh name must not hide. */
  readonly builtins: readonly string[];

  role(name: SyntaxNode): NameRole;
  /** Is this expression assigned to, changed in place or deleted? */
  isTarget(expression: SyntaxNode): boolean;
  /** The node in which a name declared here is seen; undefined for a write that declares nothing. */
  declaredIn(name: SyntaxNode): SyntaxNode | undefined;
  /** Does it make no difference to the program which false value (null, 0, "", …) this expression has? */
  falsyAlike(expression: SyntaxNode): boolean;
}

const known: Language[] = [];

/** Adds a language to those that files and snippets are read in. */
export function registerLanguage(language: Language): void {
  known.push(language);
}

/** All languages, in the order in which they were registered. */
export function allLanguages(): readonly Language[] {
  return known;
}

/** The language with this name; throws a RangeError for a name that is not one. */
export function languageOf(id: LanguageId): Language {
  const found = known.find((language) => language.id === id);
  if (!found) throw new RangeError(`"${id}" is not a language Uvran reads`);
  return found;
}

/** The language of a file by its name, or undefined when no language claims the ending. */
export function languageOfFile(path: string): Language | undefined {
  const name = path.slice(path.lastIndexOf("/") + 1);
  return known.find((language) => language.extensions.some((ending) => name.endsWith(ending)));
}
