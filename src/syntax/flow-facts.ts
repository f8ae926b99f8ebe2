import type { SyntaxNode } from "./node.js";

/** Children of a node, by their field, their kind or their place among the parts; several of those with a bar between them. */
export type Part = string;

/** A choice between two ways. */
export interface Branch {
  readonly is: "branch";
  readonly test: Part;
  readonly then?: Part;
  /** What is done otherwise; several (`elif`, `elif`, `else`) follow one another. */
  readonly otherwise?: Part;
  /** The other way round, as with `unless`. */
  readonly negated?: boolean;
  /** Parts by their place where the grammar names none: the first is what is done, then the test, then the rest. */
  readonly order?: "then test otherwise";
}

/** Code that is run again. */
export interface Loop {
  readonly is: "loop";
  readonly first?: Part;
  readonly test?: Part;
  readonly body: Part;
  readonly update?: Part;
  /** Until rather than while. */
  readonly negated?: boolean;
  /** The body runs before the first test. */
  readonly bodyFirst?: boolean | ((loop: SyntaxNode) => boolean);
  /** Done when the loop ends by itself, as with Python's `else`. */
  readonly otherwise?: Part;
}

/** Code that is run for each item of something. */
export interface Each {
  readonly is: "each";
  /** What is evaluated once, before the first item; by its place where it has no field. */
  readonly over: Part | number;
  readonly target?: Part | number;
  readonly body: Part;
  readonly otherwise?: Part;
  /** Does this loop walk the keys of something, and not its items? */
  walksKeys?(loop: SyntaxNode): boolean;
}

/** A choice between several ways by a value. */
export interface Choice {
  readonly is: "choice";
  readonly value: Part | number;
  /** The nodes of the ways, wherever below the choice they stand. */
  readonly ways: readonly string[];
  /** What of a way says for which values it is taken; the rest of it is what is done. */
  readonly labels?: Part;
  /** Values are compared after a conversion, so that `null` may be another empty value. */
  readonly isLoose?: true;
  /** A way that ends goes on with the next. */
  readonly fallsThrough?: boolean | ((choice: SyntaxNode) => boolean);
  /** `break` in a way leaves the choice. */
  readonly breaks?: boolean;
  /** Is one of the ways always taken? Asked where no way is the default. */
  readonly exhaustive?: boolean | ((choice: SyntaxNode) => boolean);
  isDefault(way: SyntaxNode): boolean;
}

/** Code whose exceptions are caught. */
export interface Try {
  readonly is: "try";
  readonly handlers: readonly string[];
  readonly otherwise?: string;
  readonly lastly?: string;
  /** Exceptions may end here without a handler that the code shows. */
  readonly swallows?: boolean;
}

/** A statement that goes on elsewhere. */
export interface Jump {
  readonly is: "jump";
  readonly to: "return" | "throw" | "break" | "continue" | "choice" | "anywhere";
}

/** An operator that may leave its right side out. */
export interface ShortCircuit {
  readonly is: "shortCircuit";
  readonly left: Part | number;
  readonly right: Part | number;
  /** What makes the right side run, by operator: the left side true, false, or missing. */
  readonly runsIf: Readonly<Record<string, "true" | "false" | "missing">>;
}

export type FlowShape =
  | Branch
  | Loop
  | Each
  | Choice
  | Try
  | Jump
  | ShortCircuit
  /** A label and the statement that it names. */
  | { readonly is: "label" }
  /** Negates its only part: `!x`. */
  | { readonly is: "negation"; readonly operators: readonly string[] };

/** A call or a member that asks whether something is there: `isset($x)`, `x.nil?`, `x.HasValue`. */
export interface Question {
  /** Is the answer true for what is there? */
  readonly isThere: boolean;
  /** Missing values, those and what is declared nowhere, or the value within a wrapper. */
  readonly asks: "missing" | "set" | "value";
  /** Of what: its only argument, the argument beside one that is missing, or the object that it is asked of. */
  readonly of: "argument" | "other argument" | "receiver";
}

/** How a language reads on from what may be missing. */
export interface SafeStep {
  /** The tokens of ordinary steps, and what each is behind something that may be missing: `->` and `?->`. */
  readonly tokens: Readonly<Record<string, string>>;
  /** What stands ahead of the brackets of a call or an item, by the kind of the step. */
  readonly brackets: Readonly<Record<string, string>>;
  /** Are all further steps left out as well where the first is? */
  readonly reachesOn: boolean;
  /** May a step not be taken where something may be missing ahead of it? `isFirst` of the one right behind that. */
  bars(step: SyntaxNode, isFirst: boolean): boolean;
}

/** A call or an operator that asks whether a collection has a key: by the places of both among the parts. */
export interface KeyQuestion {
  readonly collection: "receiver" | number;
  readonly key: number;
}

/** How a test tells a value that is there from one that is missing. */
export interface MissingFacts {
  /** The method by which an object says whether another one is equal to it; undefined where an operator does. */
  readonly equals: string | undefined;
  /** Literals for a value that is missing, by kind or by text. */
  readonly literals: readonly string[];
  /** Those of a second missing value, which exact operators tell from the first. */
  readonly second: readonly string[];
  /** Operators that are true for two missing values, and those that are false for them. */
  readonly equal: readonly string[];
  readonly unequal: readonly string[];
  /** A value that counts as true is there. */
  readonly truthIsPresence: boolean;
  /** Tests of a type, which a missing value never passes. */
  readonly typeTests: readonly string[];
  /** Functions and methods that are true for a value that is there (`isset`), and for one that is missing (`nil?`). */
  readonly present: readonly string[];
  readonly missing: readonly string[];
  /** Calls and members that ask whether something is there, by what stands before the brackets. */
  readonly questions: Readonly<Record<string, Question>>;
  /** Operators and methods that ask for a key, and methods that read the item of one. */
  readonly keys: Readonly<Record<string, KeyQuestion>>;
  /** Functions that ask an object for a member by its name as text. */
  readonly members: readonly string[];
  readonly itemReads: readonly string[];
  /** What is thrown where an item is read of a key that is not there, and whether reading by index throws it. */
  readonly keyErrors: readonly string[];
  readonly indexThrows: boolean;
  /** Methods that put an item for a key. */
  readonly itemWrites: readonly string[];
  /** Members and methods that take the value out of a wrapper. */
  readonly unwraps: readonly string[];
  /** Does the left side decide how an operator compares, as where a list is filtered? */
  readonly leftDecides: boolean;
  /** Functions and members that say of a resource that it is held (`is_resource`), and that it was given back (`closed?`). */
  readonly held: readonly string[];
  readonly givenBack: readonly string[];
  /** Operators that take other values for missing too, such as 0 and the empty string. */
  readonly loose: readonly string[];
  /** What `??` asks for. */
  readonly coalesceAsks: "missing" | "set";
  /** Operators that tell one missing value from another, for equal and for unequal. */
  readonly exactly: { readonly equal: readonly string[]; readonly unequal: readonly string[] };
  /** The word before a value that asks what kind of value it is, where a missing one is of a kind of its own. */
  readonly kindWord: string | undefined;
  /** How patterns ask: the test, a pattern turned round, one that holds a value, those that a missing value fits too. */
  readonly patterns: {
    readonly tests: readonly string[];
    readonly negated: readonly string[];
    readonly constants: readonly string[];
    /** Patterns that all but a missing value fit, by their text. */
    readonly anything: readonly string[];
    readonly open: readonly string[];
  };
  /** Statements that give a missing value to what they declare without a value, each time that they are run. */
  readonly unset: readonly string[];
  /** Does a function that ends without a `return` give a missing value? */
  readonly endGives: boolean;
  /** Nodes that make something new, which is never missing. */
  readonly creations: readonly string[];
  /** Reading a member of a missing value stops the program, so afterwards it is there. */
  readonly readsThrow: boolean;
}

/** How code counts the positions of what it walks. */
export interface CountingFacts {
  /** Functions that give the length of what they are given, and members of it that are the length; calls with `()`. */
  readonly lengthFunctions: readonly string[];
  readonly lengthMembers: readonly string[];
  /** Functions that give all numbers up to one, or from one to another. */
  readonly ranges: readonly string[];
  /** Functions that turn such an expression round. */
  readonly turned: readonly string[];
  /** Parts of an expression that walk something, with the fields of the name and of what is walked. */
  readonly clauses: readonly string[];
  /** What gives all keys of what it is given: `Object.keys` with an argument, and methods, with `()`. */
  readonly keyLists: readonly string[];
  /** Does a loop over a mapping walk its keys? */
  readonly walksKeys: boolean;
  /** Methods of a list that run a function for each item, whose result does not hold the items. */
  readonly walkers: readonly string[];
}

/** How code walks something with an iterator of its own. */
export interface IteratorFacts {
  /** The method of what is walked that gives an iterator. */
  readonly begin: string;
  /** The method that gives the end, where the iterator is compared with it and stepped on with `++`. */
  readonly end?: string;
  /** How an item is read through an iterator that is read like a pointer: the kind of `*it`, and what stands in `it->kg`. */
  readonly pointed?: { readonly kind: string; readonly arrow: string };
  /** Where an iterator is asked: the method that says whether there is another item, and does it also go on to it? */
  readonly more?: { readonly method: string; readonly goesOn: boolean };
  /** What gives the item: a method, with `()`, that goes on to the next one, or a member. */
  readonly item?: string;
}

/** What a loop may fill one by one. Items of a `map` are put by key, and need no method here. */
export interface ContainerFacts {
  readonly is: "list" | "set" | "map";
  /** How an empty one is written. */
  readonly empty: RegExp;
  /** Methods that add what they are given, to a list at its end, and operators that do. */
  readonly adds: readonly string[];
  readonly addOperators: readonly string[];
}

/** How things are filled one by one. */
export interface CollectingFacts {
  readonly containers: readonly ContainerFacts[];
  /** Methods that run a block or a function for each item. */
  readonly walkers: readonly string[];
  /** The class of lists, and what a test asks about where it asks for that class; undefined where nothing is known of it. */
  readonly lists?: { readonly named: string; testedBy(test: SyntaxNode): SyntaxNode | undefined };
}

/** How control moves through code. */
export interface FlowFacts {
  readonly shapes: Readonly<Record<string, FlowShape | ((node: SyntaxNode) => FlowShape | undefined)>>;
  /** What stands ahead of a test in brackets to turn it round. */
  readonly negation: string;
  /** Nodes around the statements of a way that are no list of statements themselves, such as `else` with a block. */
  readonly wrappers: readonly string[];
  /** Is the value of the last statement in a function what it gives? */
  readonly lastIsGiven: boolean;
  /** What takes the value that a statement comes to: a method, a block, code around it; undefined where nothing does. */
  takerOf(statement: SyntaxNode): SyntaxNode | undefined;
  /** Kinds of blocks handed to a call that a jump in them leaves together with the code around; a function's own jumps leave none. */
  leavesBlocks(jump: SyntaxNode): readonly string[];
  /** Methods that run a block before they come back. */
  readonly runsBlocks: RegExp;
  /** Methods that run a block for each of something, and make nothing of what it comes to. */
  readonly walksByBlock: RegExp;
  /** Assignments, by the parts that are evaluated before the write; the target's own parts come first. */
  readonly assignments: Readonly<Record<string, { readonly target: Part; readonly value?: Part }>>;
  /** Operators of assignments that may not assign (`??=`), with what makes them do it. */
  readonly assignsIf: Readonly<Record<string, "true" | "false" | "missing">>;
  /** Nodes of member reads, calls and index reads that make up chains, and the tokens that may cut one short. */
  readonly chains: readonly string[];
  readonly chainBreaks: readonly string[];
  /** How one reads on from what may be missing; undefined where the language has no such form. */
  readonly safeStep: SafeStep | undefined;
  /** Comparisons with a literal that are false for a missing value, and those that are true for it. */
  readonly comparesMissing: { readonly toFalse: readonly string[]; readonly toTrue: readonly string[] };
  /** Nodes whose evaluation may throw. */
  readonly mayThrow: readonly string[];
  /** Operators that make another pointer into the same object out of one. */
  readonly movesPointers: readonly string[];
  /** Operators that ask whether two things are the same one, which runs no code of theirs. */
  readonly identityTests: readonly string[];
  /** Methods that the language calls for code that does not name them, each with that code on the object itself. */
  readonly implicitCalls: Readonly<Record<string, RegExp>>;
  /** Calls that never come back, by their text before the brackets. */
  readonly neverReturn: readonly string[];
  readonly missing: MissingFacts;
  readonly counting: CountingFacts;
  readonly iterators: readonly IteratorFacts[];
  readonly collecting: CollectingFacts;
  /** Is the variable itself taken where this expression stands, and not its value: `$a = &$b`? */
  takesVariable(node: SyntaxNode): boolean;
  /** The label that a jump names, or that stands before a statement. */
  label(node: SyntaxNode): string | undefined;
  /** How many loops a jump leaves, where it may say so with a number. */
  levels(jump: SyntaxNode): number;
}

/** What most languages have nothing of. */
export const ordinaryMissing = {
  equals: undefined,
  second: [],
  loose: [],
  coalesceAsks: "missing",
  questions: {},
  keys: {},
  members: [],
  itemReads: [],
  itemWrites: [],
  keyErrors: [],
  indexThrows: false,
  unwraps: [],
  leftDecides: false,
  held: [],
  givenBack: [],
  exactly: { equal: [], unequal: [] },
  kindWord: undefined,
  unset: [],
  endGives: false,
  patterns: { tests: [], negated: [], constants: [], anything: [], open: [] },
} satisfies Partial<MissingFacts>;

/** What holds for most languages. */
export const ordinaryFlow = {
  safeStep: undefined,
  comparesMissing: { toFalse: [], toTrue: [] },
  negation: "!",
  wrappers: ["else_clause"],
  lastIsGiven: false,
  takerOf: (_statement: SyntaxNode): SyntaxNode | undefined => undefined,
  leavesBlocks: (_jump: SyntaxNode): readonly string[] => [],
  runsBlocks: /^(?!)/,
  walksByBlock: /^(?!)/,
  assignsIf: {},
  chains: [],
  chainBreaks: [],
  neverReturn: [],
  movesPointers: [],
  identityTests: [],
  implicitCalls: {},
  iterators: [],
  counting: {
    lengthFunctions: [],
    lengthMembers: [],
    ranges: [],
    turned: [],
    clauses: [],
    keyLists: [],
    walksKeys: false,
    walkers: [],
  },
  collecting: { containers: [], walkers: [] },
  takesVariable: () => false,
  label: (node: SyntaxNode) => node.parts.find((part) => part.kind.endsWith("identifier"))?.text,
  levels: () => 1,
} satisfies Partial<FlowFacts>;

export const jump = (to: Jump["to"]): Jump => ({ is: "jump", to });

/** Operators between two sides that most languages share. */
export const shortCircuits = (
  runsIf: ShortCircuit["runsIf"],
): ((node: SyntaxNode) => ShortCircuit | undefined) => {
  return (node) =>
    runsIf[node.child("operator")?.text ?? ""]
      ? { is: "shortCircuit", left: "left", right: "right", runsIf }
      : undefined;
};

const IF = { is: "branch", test: "condition", then: "consequence", otherwise: "alternative" } as const;

/** What C has left to most languages with braces, where their grammars call it the same. */
export const likeC = {
  if_statement: IF,
  while_statement: { is: "loop", test: "condition", body: "body" },
  do_statement: { is: "loop", test: "condition", body: "body", bodyFirst: true },
  return_statement: jump("return"),
  throw_statement: jump("throw"),
  break_statement: jump("break"),
  continue_statement: jump("continue"),
} satisfies FlowFacts["shapes"];

/** `a ? b : c`. */
export const CONDITIONAL: FlowShape = IF;
