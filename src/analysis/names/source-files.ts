import type { TreeStore } from "../tree-store.js";

/** A file of a project in which a word stands. */
export interface NamingFile {
  /** Relative to the project's root. */
  readonly path: string;
  readonly text: string;
  /** Why the file is not to be changed: it is generated, for one. */
  readonly leftOut?: string | undefined;
}

/** The sources of a project, as far as they are asked for. What was worked out about a project is kept by this object. */
export interface SourceFiles {
  /** The files in which a word stands, in the order of their paths. */
  naming(word: string): Iterable<NamingFile>;
  /** The style sheets in which a word stands. */
  styling?(word: string): Iterable<Pick<NamingFile, "path" | "text">>;
  /** The paths of all files of the project that hold code, in a list that is another one as soon as any file changes. */
  listed?(): Iterable<string>;
  /** A file that holds code, by its path; undefined where there is none. */
  at?(path: string): NamingFile | undefined;
  /** The text of a manifest, such as `package.json`; undefined where there is none. */
  manifest?(path: string): string | undefined;
  /** The manifest of an installed package, as a file at `from` would find it; undefined where it is not installed. */
  installed?(name: string, from: string): string | undefined;
  /** Told of a word when an answer about the files that name it is given again without asking for them. */
  restsOn?(word: string): void;
  /** Where the trees of files are kept; their own place where there is none. */
  readonly trees?: TreeStore;
}
