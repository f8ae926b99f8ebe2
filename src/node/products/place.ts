import type { LanguageId } from "../../syntax/index.js";

/** Where versions of products stand: in files that a tool has locked, or in those that people write. */
export interface Place {
  readonly languages: readonly LanguageId[];
  readonly file: RegExp;
  readonly isLock: boolean;
  /**
   * The version, or the range that is asked for. `below` is the folder that it is asked for, from that of the file. Throws for
   * what is not in the file's format.
   */
  read(text: string, product: string, below: string): string | undefined;
}

/** Names with versions or ranges. */
export type Named = Readonly<Record<string, string>>;

export const find = (text: string, form: string, flags = "m"): string | undefined =>
  new RegExp(form, flags).exec(text)?.[1];

/** A value as a list: nothing, one thing, or several. */
export function listOf<T>(value: T | readonly T[] | undefined): readonly T[] {
  return value === undefined ? [] : Array.isArray(value) ? (value as readonly T[]) : [value as T];
}
