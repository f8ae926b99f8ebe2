import type { DeclaredAs } from "./name-facts.js";

/** What a declarator makes of the type that is written beside it. */
export type Declarator = "many" | "pointer" | "function" | "tuple" | "dict";

/** How types are written, and what makes objects of them. */
export interface TypeNotation {
  /** Nodes between a declared name and its type that make another type of it. */
  readonly declarators: Readonly<Record<string, Declarator>>;
  /** The field with the brackets of an array behind a name. */
  readonly dimensions: string | undefined;
  /** Types of many of one thing. */
  readonly arrays: readonly string[];
  /** Types that are known by the one in them: with arguments, of what may be missing, of what is pointed to. */
  readonly around: readonly string[];
  /** Types that name no single class. */
  readonly composed: readonly string[];
  /** Expressions that make an object of a class, with where the class is named: a field, or the first part. */
  readonly creations: Readonly<Record<string, string | 0>>;
  /** The method by which a class makes its objects: `Hive.new`. */
  readonly maker: string | undefined;
  /** What has the type written beside it only until something else is put into it. */
  readonly heldAtFirst: readonly DeclaredAs[];
  /** How it is written what values a type has; undefined where types say nothing of missing and false ones. */
  readonly values: ValueTypes | undefined;
}

/** Types that say which values there are, as those of TypeScript do. */
export interface ValueTypes {
  /** Names, and members of objects, as expressions. */
  readonly name: string;
  readonly member: string;
  readonly self: string;
  readonly parenthesized: string;
  /** Says that something is there, whatever its type says. */
  readonly asserted: string;
  /** What may cut a chain short. */
  readonly cut: string;
  /** What holds a name with its type, and what of these may be left out. */
  readonly holders: readonly string[];
  readonly optionalHolders: readonly string[];
  readonly members: readonly string[];
  readonly union: string;
  readonly grouped: string;
  readonly literal: string;
  readonly predefined: string;
  readonly object: string;
  readonly generic: string;
  readonly named: string;
  readonly alias: string;
  readonly declarations: readonly string[];
  /** Types whose values are all objects. */
  readonly alwaysObjects: readonly string[];
}

/** For a language that writes no types, or of whose types nothing is known. */
export const ordinaryTypes: TypeNotation = {
  declarators: {},
  dimensions: undefined,
  arrays: [],
  around: [],
  composed: [],
  creations: {},
  maker: undefined,
  heldAtFirst: [],
  values: undefined,
};
