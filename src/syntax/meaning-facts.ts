import { ordinaryTypes, type TypeNotation } from "./type-notation.js";
/** What may run code of a class although it is only read. */
export interface Reads {
  /** A bare name: nothing, or it may be a property, a method, a global with a getter, a macro. */
  readonly names: "plain" | "property" | "method" | "global" | "macro";
  /**
   * A member: nothing, what `->` of an object stands for, what its class declares as a property, that or a method for
   * all members, a getter, anything.
   */
  readonly members: "plain" | "arrow" | "property" | "magic" | "getter" | "any";
  /** An item of these types is plain, of arrays too; of all types, or of pointers. */
  readonly plainItems: "all" | "pointers" | readonly string[];
}

/** What code means, as far as analysis asks. */
export interface MeaningFacts {
  /** Leaves that can name a variable. */
  readonly variables: readonly string[];
  readonly functions: readonly string[];
  readonly classes: readonly string[];
  /** Functions that make an object, which nobody sees before they are done. */
  readonly constructors: readonly string[];
  /** Bodies that run later or elsewhere: functions, lambdas, lazy generators. */
  readonly delayed: readonly string[];
  readonly calls: readonly string[];
  readonly memberReads: readonly string[];
  readonly indexReads: readonly string[];
  /** What holds the indices in such a read, where the grammar has a list for them; else they stand there alone. */
  readonly indexLists: readonly string[];
  readonly reads: Reads;
  /** How code reads through a pointer: the step to a member, and the sign ahead of one by the kind of node. */
  readonly pointers?: { readonly steps: readonly string[]; readonly signs: Readonly<Record<string, string>> };
  /** Imports that bring in names which the file does not spell out. */
  readonly wildcardImports: readonly string[];
  /** Functions that can read or change variables by their names as strings. */
  readonly reflection: readonly string[];
  /** Nodes that read or change a variable whose name is worked out: `$$name`. */
  readonly namesWorkedOut?: readonly string[];
  /** Nodes at which a function waits or hands control back. */
  readonly suspensions: readonly string[];
  /** Nodes that keep what is put into them: lists, objects, tables. */
  readonly stores: readonly string[];
  /** Nodes that have the value of what is in them, or hand it on: casts, spreads. */
  readonly handsOn: readonly string[];
  /** Targets that take a value apart into several names. */
  readonly takesApart: readonly string[];
  /** How types are written. */
  readonly types: TypeNotation;
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
  /** Operators that never run code of a class, whatever they are given. */
  readonly quietOperators: readonly string[];
  /** May a class say what comparing with nothing means? */
  readonly nullTestsAskClass: boolean;
  /** Operators that do something else than work out a value. */
  readonly changingOperators: readonly string[];
  /** Types of the language whose operators and conversions no class can give a meaning of its own. */
  readonly plainTypes: readonly string[];
  /** Pairs whose key, and sets whose items, are hashed by code of their class. */
  readonly hashing: readonly string[];
  /** Words that do something without being called, in small letters. */
  readonly bareCalls: readonly string[];
  /** Nodes that turn what is in them, or what stands in them beside plain text, into text, which a class may have a method for. */
  readonly textParts: readonly string[];
  /** Kinds of literals, with the type that each is of. */
  readonly literalTypes: Readonly<Record<string, string>>;
  /** Those of them that are of another type where their text looks so: `b"…"`, `1L`; undefined for a type that depends on more. */
  readonly markedLiterals: Readonly<
    Record<string, readonly (readonly [text: RegExp, type: string | undefined])[]>
  >;
  /** Can a name be read that nothing declares? */
  readonly namesMayBeUndefined: boolean;
  /** Can a local variable be read that has no value yet? */
  readonly localsMayBeUnset: boolean;
  /** Is an undeclared name that begins with a capital one of a type? */
  readonly typesBeginUpper: boolean;
  /** May a type be written as a string? */
  readonly typesInStrings: boolean;
  /** Text that may define a function of this name, where files call each other's without bringing them in. */
  definesFunction?(name: string): RegExp;
  /** Ahead of names outside of all namespaces, where what the language has itself cannot be defined again: `\\count` in PHP. */
  readonly outermost?: string;
  /** Does calling a class make an object of it, as in Python? */
  readonly callsMakeObjects: boolean;
  /** Nodes at which a function may wait, with those of functions that may: `async`. */
  readonly asyncMarks: readonly string[];
  /** Names that exist without a declaration, which a fresh name must not hide. */
  readonly builtins: readonly string[];
}

/** What many languages have nothing of. */
export const ordinaryMeaning: MeaningFacts = {
  variables: [],
  functions: [],
  classes: [],
  constructors: [],
  delayed: [],
  calls: [],
  memberReads: [],
  indexReads: [],
  indexLists: [],
  reads: { names: "plain", members: "any", plainItems: [] },
  wildcardImports: [],
  reflection: [],
  suspensions: [],
  stores: [],
  handsOn: [],
  takesApart: [],
  types: ordinaryTypes,
  resourceBlocks: [],
  sharing: [],
  augmented: [],
  plainValues: [],
  literals: [],
  combinations: [],
  quietOperators: [],
  nullTestsAskClass: false,
  changingOperators: [],
  plainTypes: [],
  hashing: [],
  bareCalls: [],
  textParts: [],
  literalTypes: {},
  markedLiterals: {},
  namesMayBeUndefined: false,
  localsMayBeUnset: false,
  typesBeginUpper: false,
  typesInStrings: false,
  callsMakeObjects: false,
  asyncMarks: [],
  builtins: [],
};
