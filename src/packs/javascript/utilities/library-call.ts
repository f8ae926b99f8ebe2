import { originOf } from "../../../core.js";
import type { Match, SyntaxNode } from "../../../core.js";
import type { Subject } from "./lists.js";

/** Families of libraries whose functions have the same names, and mostly the same meaning. */
export type Utilities = "lodash" | "underscore";

/** A function of a library for what the language can do itself. */
export interface Utility {
  readonly library: Utilities;
  /** Its own name, whatever the file calls it. */
  readonly name: string;
}

/** The words by which a file names these libraries. */
export const LIBRARY_WORDS = ["lodash", "underscore"];

const WHOLE = /^(?:lodash|lodash-es|underscore)$/;
const PART = /^(?:lodash(?:-es)?\/|lodash\.|underscore\/(?:modules|cjs|amd)\/)([a-z]+)(?:\.js)?$/i;

/** The function of a library that a name, or a member of the library, is: `_.map`, `map`, what `lodash/map` gives. */
export function utilityOf(callee: SyntaxNode): Utility | undefined {
  const origin = originOf(callee);
  if (!origin) return undefined;
  const library = origin.module.startsWith("underscore") ? "underscore" : "lodash";
  const member = origin.name?.replace(/^default(\.|$)/, "") ?? "";
  const part = PART.exec(origin.module)?.[1];
  if (part !== undefined) return member === "" ? { library, name: part } : undefined;
  return WHOLE.test(origin.module) && /^\w+$/.test(member) ? { library, name: member } : undefined;
}

/** The library itself, as a file calls it: `_` in `_(jars)`. */
export function libraryOf(callee: SyntaxNode): Utilities | undefined {
  const origin = originOf(callee);
  const isIt = origin && WHOLE.test(origin.module) && (origin.name ?? "default") === "default";
  return isIt ? (origin.module === "underscore" ? "underscore" : "lodash") : undefined;
}

/** A call of a library's function, or one in a chain of them, with what it is given. */
export interface UtilityCall extends Utility {
  readonly match: Match;
  readonly node: SyntaxNode;
  /** The first argument is what the function works on; in a chain it is the link ahead. */
  readonly args: readonly SyntaxNode[];
  /** What the link ahead gives; without it this is no later link of a chain. */
  readonly after?: { readonly gives: Subject | undefined };
}
