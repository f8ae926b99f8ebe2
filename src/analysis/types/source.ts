import type { Answer } from "../answer.js";

/** What a compiler knows of the type of an expression. */
export interface TypeFacts {
  /** The type as the compiler writes it. */
  readonly text: string;
  readonly canBeNull: boolean;
  readonly canBeUndefined: boolean;
  /** Does the compiler keep track of all missing values? Without it, a no of the two above is none. */
  readonly knowsMissing: boolean;
  /** Values that count as false without being missing, as they are written: `0`, `""`, `false`, `NaN`. */
  readonly falsy: readonly string[];
  /** Anything at all: nothing is known. */
  readonly isAny: boolean;
  /** Names of the type and of what it extends, with the packages they come from. */
  readonly names: readonly { readonly name: string; readonly module?: string | undefined }[];
}

/** A declaration that a call or a name resolves to. */
export interface ResolvedTo {
  readonly name: string;
  readonly path: string;
  /** 1-based. */
  readonly line: number;
}

/** A file, and the text that the question is about; answered only where it is what the compiler has read. */
export interface AskedFile {
  readonly path: string;
  readonly text: string;
}

/** A project's own compiler, asked about places in files. Offsets in UTF-16 code units. */
export interface TypeSource {
  /**
   * Does the compiler that checks a file keep null and undefined apart from all other types, so that a declared `T` is
   * never missing? With the option that says so. Unknown where nobody says.
   */
  strictNulls(path: string): Answer;
  /** The type of the expression that stands exactly there; undefined where the compiler has none. */
  typeAt(file: AskedFile, start: number, end: number): TypeFacts | undefined;
  /** What the called function, or the name, at this place is declared as. */
  declarationAt(file: AskedFile, start: number, end: number): ResolvedTo | undefined;
}
