import type { Rule } from "uvran/core";

/** Their code opens files and starts processes, or needs what the language has as it is, so it is not run. */
const NOT_RUN =
  /\/(own-keys|promise-form|steps-awaited|scoped-resource|released-in-finally|block-form|synchronized|scoped-lock)$/;

export const mayBeRun = ({ id }: Rule): boolean => !NOT_RUN.test(id);

/** Names that a piece of code has, and what became of it has no longer: what they hold is nobody's business then. */
export function goneNames(code: string, now: string): string[] {
  // A method may have the name of a variable; in PHP they look different.
  const form = code.startsWith("<?php") ? /(?<=\$)\w+/gu : /[\p{L}_]\w*/gu;
  const namesIn = (text: string): string[] => text.match(form) ?? [];
  const left = new Set(namesIn(now));
  return [...new Set(namesIn(code))].filter((name) => !left.has(name));
}

/** Is what two pieces of code did the same, but for what is held by names that are gone? */
export function isSame(one: string, other: string, gone: readonly string[]): boolean {
  if (one === other) return true;
  const without = (line: string): string =>
    line
      .split("|")
      .filter(
        (part) => !gone.some((name) => ["=", ":", "!", "("].some((sign) => part.startsWith(name + sign))),
      )
      // PHP writes a table without names as a list.
      .map((part) => (/^[{[]/.test(part) ? withoutKeys(part === "[]" ? "{}" : part, gone) : part))
      .join("|");
  const both = [one, other].map((text) => text.split("\n").map(without).join("\n"));
  return both[0] === both[1];
}

function withoutKeys(text: string, gone: readonly string[]): string {
  if (text.startsWith("[")) return text;
  try {
    const values = Object.entries(JSON.parse(text) as object).filter(([name]) => !gone.includes(name));
    return JSON.stringify(Object.fromEntries(values));
  } catch {
    return text;
  }
}
