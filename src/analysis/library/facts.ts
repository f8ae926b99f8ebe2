import type { LanguageId } from "../../syntax/index.js";

/** A language with a table; TypeScript shares that of JavaScript. */
export type LibraryLanguage = Exclude<LanguageId, "typescript" | "tsx">;

/** What a call does besides giving a value: nothing, nothing but reading what may change, printing, changing something. */
export const EFFECTS = ["none", "reads", "prints", "changes"] as const;
export type Effect = (typeof EFFECTS)[number];

/**
 * What some functions and methods of a library do. They are known by where they come from, never by their names alone.
 * A row is the whole truth: what it does not say does not happen.
 */
export interface LibraryCalls {
  readonly language: LibraryLanguage;
  /** The module, package or namespace; without it the language has them everywhere. */
  readonly in?: string;
  /**
   * `len`, `join` (with `in: "os.path"`), a static method or one of an object that everybody has: `Math.max`, a method
   * of the objects of a class: `list#append`. In JavaScript `Date.new` is `new Date(…)`.
   */
  readonly calls: readonly string[];
  readonly effect: Effect;
  /**
   * What it gives is another value each time it is called: the time, a random number, an id. `"without arguments"`: only
   * then, as the present time in `new Date()`.
   */
  readonly varies?: boolean | "without arguments";
  /** It runs code of its arguments' classes, as comparing and turning into text do. */
  readonly asksArguments?: boolean;
  /** An argument is still held when the call is over: stored, or given back. */
  readonly keeps?: boolean;
  /** What it gives must be released, and what it is given is released. */
  readonly acquires?: boolean;
  readonly releases?: boolean;
  /** A function among the arguments is run before the call is over. */
  readonly runs?: boolean;
  /** It never throws, whatever it is given. */
  readonly neverThrows?: boolean;
  /** The type of what it gives, as the language writes it. */
  readonly gives?: string;
  /** What it gives may be a missing value. */
  readonly orMissing?: boolean;
  /** It gives `false` where it fails. */
  readonly orFalse?: boolean;
}

/** What rules ask of the classes of a library. */
export const TRAITS = [
  /** The language's scoped form takes its objects: `with`, `using`, try with resources. */
  "scoped",
  /** Its objects are files or memory of this program, of which nobody else sees when they are released. */
  "unseen",
  /** It reads from or writes to another one, which it is made with. */
  "wraps",
  /** Something is written through it, so that releasing it can fail. */
  "writes",
  /** Closing it is all that the scoped form does. */
  "close-is-release",
  /** Its values are never missing. */
  "value",
  /** Comparing its objects with a missing value runs no code of a class. */
  "plain-equality",
  /** A value is one thing, and never a list of several. */
  "single",
  /** Making one throws nothing that must be declared. */
  "made-quietly",
  /** Values are looked up in it by a key. */
  "map",
  /** Its items stand in an order and are read by their positions, counted from 0. */
  "sequence",
  /** It holds items, which it gives one by one, and hands to its methods one by one in the same order. */
  "collection",
  /** Code runs under it one at a time. */
  "lock",
  /** It holds a value or none. */
  "optional",
  /** It has one method to write, so that a lambda can be one. */
  "function",
] as const;
export type Trait = (typeof TRAITS)[number];

/** Classes of a library that have something in common. */
export interface LibraryClasses {
  readonly language: LibraryLanguage;
  /** The module, package or namespace; without it the language has them everywhere. */
  readonly in?: string;
  readonly classes: readonly string[];
  readonly are: readonly Trait[];
  /** The exception that releasing one declares; without it none where they are scoped. */
  readonly releaseThrows?: string;
}

/** Values that a library has from the start. */
export interface LibraryValues {
  readonly language: LibraryLanguage;
  /** The module, package or namespace. */
  readonly in: string;
  readonly values: readonly string[];
  readonly type: string;
  /** The module of the type, where the language has it not everywhere. */
  readonly typeIn?: string;
}

/** What is known of libraries beyond what ships: of the project's own ones, and of those that packs are for. */
export interface Library {
  readonly calls?: readonly LibraryCalls[];
  readonly classes?: readonly LibraryClasses[];
  readonly values?: readonly LibraryValues[];
}
