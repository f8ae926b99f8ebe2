import { fresh, holes, javascript, type Answer, type Snippet } from "../../../core.js";
import type { Utilities, UtilityCall } from "./library-call.js";
import type { Subject } from "./lists.js";

export const { callee, first, second, third } = holes({
  callee: "expression",
  first: "expression",
  second: "expression",
  third: "expression",
});

export const item = fresh("item", { singularOf: first, or: ["one", "entry", "it"] });
export const total = fresh("total", { or: ["sum", "added", "result"] });
export const index = fresh("i", { or: ["index"] });
export const unused = fresh("_", { or: ["_unused", "ignored"] });

/** How the language says what a function of a library says. */
export interface Native {
  readonly names: readonly string[];
  /** The only library of which that is true. */
  readonly of?: Utilities;
  /** How many arguments the call has. */
  readonly count: number;
  /** What the first one must be; `anything` that is there, or a `value` of which nothing is asked. */
  readonly takes: readonly Subject[] | "anything" | "value";
  /** The code; none where this call cannot be written so. */
  readonly becomes: Snippet | ((call: UtilityCall) => Snippet | undefined);
  /** The second argument is run for each item. */
  readonly runs?: "read" | "test" | "contrary" | "fold";
  /** The second argument is always a short form. */
  readonly isShort?: true;
  /** Where the subject is an object, its members are walked. */
  readonly walks?: "each" | "list" | "entries";
  /** The library takes an object for the list of its values, and this has no form for that. */
  readonly alsoObjects?: true;
  /** Places of a list that were never filled are left out. */
  readonly needsAll?: true;
  /** The library gives another value than the language. */
  readonly givesOther?: true;
  readonly asks?: (call: UtilityCall) => Answer;
  /** What it gives, for the next link of a chain. */
  readonly gives?: Subject;
}

export type Rest = Omit<Native, "names" | "count" | "takes" | "becomes">;

export const made =
  (count: number, takes: Native["takes"]) =>
  (names: string, becomes: Native["becomes"], rest: Rest = {}): Native => ({
    names: names.split(" "),
    count,
    takes,
    becomes,
    ...rest,
  });

export const LIST = ["list"] as const;
export const list1 = made(1, LIST);
export const list2 = made(2, LIST);
export const list3 = made(3, LIST);
export const text1 = made(1, ["text"]);
export const text2 = made(2, ["text"]);
export const text3 = made(3, ["text"]);
export const value1 = made(1, "value");

export const js = javascript.expression;
export const list = { gives: "list" } as const;
export const lodash = { of: "lodash" } as const;
export const underscore = { of: "underscore" } as const;
export const all = { needsAll: true } as const;
