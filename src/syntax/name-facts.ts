import type { SyntaxNode } from "./node.js";
import type { SyntaxTree } from "./tree.js";

/** What a stretch of code is to the names declared in it. */
export type ScopeKind = "file" | "namespace" | "class" | "function" | "block";

/** A node in which names live. */
export interface ScopeFacts {
  readonly is: ScopeKind;
  /** Fields (or kinds) whose code stands in the node but is outside of its scope, such as the name of a function. */
  readonly outside?: readonly string[];
  /** Local names of the scopes around it cannot be seen in it. */
  readonly closed?: boolean;
  /** Its own names are seen in it only, not in functions inside it, as with the classes of Python. */
  readonly shallow?: boolean;
}

/** What a name is declared as. */
export type DeclaredAs =
  | "local"
  | "parameter"
  | "function"
  | "method"
  | "field"
  | "class"
  | "type"
  | "namespace"
  | "import"
  | "constant";

/**
 * Names of one space cannot be confused with those of another: in Java a method, a type and a variable may all be
 * called `hive`.
 */
export type NameSpace = "value" | "type" | "callable" | "constant" | "member" | "method";

/** Where a declared name is seen. */
export type Reach =
  /** the nearest scope around the name */
  | "here"
  /** the nearest function, class or file: blocks do not count */
  | "function"
  /** the nearest class, namespace or file */
  | "class"
  /** the whole file */
  | "file"
  | ((name: SyntaxNode) => SyntaxNode | undefined);

/** How a name comes into being. */
export interface Declares {
  readonly as: DeclaredAs;
  readonly in: Reach;
  /** Seen only behind the place that declares it, not in the whole scope. */
  readonly fromHere?: boolean;
  /** Declares only where no name of a scope around could be meant, as assignments in Ruby do. */
  readonly ifNew?: boolean;
  /** Spaces in which the name counts; `value` when left out. */
  readonly spaces?: readonly NameSpace[];
  /** The name belongs to an outer scope: Python's `global` and `nonlocal`, PHP's `global`. */
  readonly sharedWith?: "file" | "function";
  /** Seen on some paths only, so another name of a scope around may be meant after all. */
  readonly onSomePaths?: boolean;
}

/**
 * What happens to the thing that a name stands for: declared without a value, read, given a value, changed, its
 * address taken (or bound to a reference), or passed to code that may take it by reference and change it.
 */
export type Does = "declare" | "read" | "write" | "update" | "address" | "passed";

/** What one name does where it stands. */
export interface NameUse {
  readonly does: Does;
  readonly declares?: Declares;
  /** Spaces to look the name up in, one after the other; `value` when left out. */
  readonly spaces?: readonly NameSpace[];
  /** A member of what stands in this field of the node above (or `first` in it); of a thing unknown where empty. */
  readonly memberOf?: string;
  /** The name of an argument, which means a parameter of whatever is called. */
  readonly named?: boolean;
  /** Looked up outside of the function that the name stands in. */
  readonly outer?: boolean;
  /** The same text is a read of one name and a declaration of another: `{ hive }`, `use ($hive)`. */
  readonly also?: NameUse;
}

/** Not a name of anything that could be declared: a label of an argument, a word of the language. */
export const NO_USE = "nothing";
/** The facts cannot say what the name does here. */
export const UNKNOWN_USE = "unknown";
export type Use = NameUse | typeof NO_USE | typeof UNKNOWN_USE;

/** The use of a name by the place it has in the node above; where that is not enough, worked out. */
export type UseEntry = Use | UseFunction;
export type UseFunction = (name: SyntaxNode, target: SyntaxNode) => Use | undefined;

/** A piece of code, and what takes its place. */
export interface Renamed {
  readonly node: SyntaxNode;
  readonly text: string;
}

/** How names bind: what declares them, where they are seen, what refers to them. */
export interface NameFacts {
  /** Leaves that are names, with what they do where no entry of `uses` says otherwise. */
  readonly leaves: Readonly<Record<string, Use | ((name: SyntaxNode) => Use)>>;
  /**
   * What a name does in a place, by `kind.field` of the node above it, by `kind` alone for every place in it, or by
   * `.field` for any kind. The place is that of the largest target the name is part of; see `groups`.
   */
  readonly uses: Readonly<Record<string, UseEntry>>;
  /** Nodes that name what another node names again, as both ends of an element do. */
  readonly paired: readonly string[];
  /** Kinds that only put targets together (`[a, b]`), with the fields they may stand in; all when empty. */
  readonly groups: Readonly<Record<string, readonly string[]>>;
  readonly scopes: Readonly<Record<string, ScopeFacts>>;
  /** Is this code evaluated outside of the next function around it, as default values are in Python? */
  evaluatedOutside(part: SyntaxNode): boolean;
  /** Nodes that list the parameters of a function, in which its locals are not seen. */
  readonly parameterLists: readonly string[];
  /** Nodes that make the names in them mean what an object happens to hold. */
  readonly objectScopes: readonly string[];
  /** Code that holds the name as text which the grammar does not read, such as the body of a macro. */
  hides(name: string, tree: SyntaxTree): SyntaxNode | undefined;
  /** Names that the language itself gives a meaning in this place, such as `nameof`. */
  implicit(name: SyntaxNode): boolean;
  /** The word that brings in a parameter by the language's own name for it, as `set` does with `value`. */
  implied(name: SyntaxNode): SyntaxNode | undefined;
  /** The type that such a parameter has. */
  impliedType(word: SyntaxNode): SyntaxNode | undefined;
  /**
   * How this use is written when what it stands for gets another name and what else it names does not; undefined
   * where that cannot be written.
   */
  renamed(use: SyntaxNode, newName: string): Renamed | undefined;
  /** Where a scope is opened several times in a file, the first of its nodes; else the node itself. */
  reopened(scope: SyntaxNode): SyntaxNode;
  /** The class that a function belongs to although it stands outside of it; `elsewhere` where it is in another file. */
  ownerOf(scope: SyntaxNode): SyntaxNode | "elsewhere" | undefined;
  /** The name of that class, as the function says it. */
  ownerNamed(scope: SyntaxNode): string | undefined;
  /** The class whose object this node stands for (`this`, `self`); undefined where it is no such node. */
  selfOf(node: SyntaxNode): SyntaxNode | undefined;
  /** An object that is declared to be of a class is of that class or of one derived from it, and of no other. */
  readonly typesAreKept: boolean;
  /** A name that no declaration explains may be a member of a class around, if that class has a parent. */
  readonly bareMembers: boolean;
  /** Spaces in which what is declared twice in one scope under one name is one thing. */
  readonly oneForAll: readonly NameSpace[];
  /** Assigning to a member of the object whose method is running declares a field of its class. */
  readonly assignedMembers: boolean;
  /** A name as it is looked up: in lower case where case does not count, without the `$` it may be written with. */
  bare(name: SyntaxNode): string;
  /** The same for the name of a variable as it is written. */
  bareText(text: string): string;
  /** Is what this name declares a variable of somewhere else, under another name? */
  isReference(declared: SyntaxNode): boolean;
  /** Can a function change the variable that it is given for this parameter? */
  takesReference(parameter: SyntaxNode): boolean;
  /** The object through which a function's parameters can be changed, beside their names: `arguments` in JavaScript. */
  readonly parametersIn?: string;
  /** Nodes that hand all parameters of the function on, where they name no method that is called: a bare `super` in Ruby. */
  readonly handsOnParameters: readonly string[];
  /** Does this run code in the scope that it stands in, where that can set any variable? */
  readonly runsInScope: { readonly kinds: readonly string[]; is?(node: SyntaxNode): boolean };
  /** The classes that a class is derived from, by their nodes. */
  parentsOf(scope: SyntaxNode): readonly SyntaxNode[];
  /** Can code outside of the file (or of the class, for members) use the name? */
  isPublic(name: SyntaxNode, as: DeclaredAs, scope: SyntaxNode): boolean;
  /** A file is an object while the program runs, and its names can be reached as members of it. */
  readonly filesAreObjects: boolean;
  /** Names of the caller can be seen and changed by what is called. */
  readonly dynamicScope: boolean;
}

/** What holds for most languages. */
export const ordinaryNames = {
  paired: [],
  groups: {},
  evaluatedOutside: () => false,
  oneForAll: [],
  assignedMembers: false,
  parameterLists: [],
  objectScopes: [],
  hides: () => undefined,
  implicit: () => false,
  implied: () => undefined,
  impliedType: () => undefined,
  renamed: (node: SyntaxNode, newName: string) => ({ node, text: newName }),
  reopened: (scope: SyntaxNode) => scope,
  ownerOf: () => undefined,
  ownerNamed: () => undefined,
  selfOf: () => undefined,
  bareMembers: false,
  typesAreKept: false,
  dynamicScope: false,
  filesAreObjects: false,
  bare: (name: SyntaxNode) => name.text,
  bareText: (text: string) => text,
  isReference: () => false,
  takesReference: () => false,
  runsInScope: { kinds: [] },
  handsOnParameters: [],
  parentsOf: () => [],
  isPublic: () => true,
} satisfies Partial<NameFacts>;
