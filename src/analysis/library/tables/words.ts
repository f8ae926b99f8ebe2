import type { LibraryCalls, LibraryClasses, LibraryLanguage, Trait } from "../facts.js";

/** Names separated by white space. */
const words = (text: string): readonly string[] => text.trim().split(/\s+/);

type Facts = Omit<LibraryCalls, "language" | "calls" | "in">;

/** Makers of the rows of one language. */
export interface Rows {
  /** What the language has everywhere, in a text of names. */
  calls(names: string, facts: Facts): LibraryCalls;
  /** What a module, package or namespace has. */
  callsIn(from: string, names: string, facts: Facts): LibraryCalls;
  classes(names: string, are: readonly Trait[], releaseThrows?: string): LibraryClasses;
  classesIn(from: string, names: string, are: readonly Trait[], releaseThrows?: string): LibraryClasses;
}

export function rowsOf(language: LibraryLanguage): Rows {
  const classes: Rows["classes"] = (names, are, releaseThrows) => ({
    language,
    classes: words(names),
    are,
    ...(releaseThrows === undefined ? {} : { releaseThrows }),
  });
  return {
    calls: (names, facts) => ({ language, calls: words(names), ...facts }),
    callsIn: (from, names, facts) => ({ language, in: from, calls: words(names), ...facts }),
    classes,
    classesIn: (from, names, are, releaseThrows) => ({ ...classes(names, are, releaseThrows), in: from }),
  };
}
