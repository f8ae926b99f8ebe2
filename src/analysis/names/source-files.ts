/** A file of a project in which a word stands. */
export interface NamingFile {
  /** Relative to the project's root. */
  readonly path: string;
  readonly text: string;
  /** Why the file is not to be changed: it is generated, for one. */
  readonly leftOut?: string | undefined;
}

/** The sources of a project, as far as they are asked for. */
export interface SourceFiles {
  /** The files in which a word stands, in the order of their paths. */
  naming(word: string): Iterable<NamingFile>;
}
