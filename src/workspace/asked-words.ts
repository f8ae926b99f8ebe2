/** The words that results have asked for, each with the files in which it stands. */
export class AskedWords {
  readonly #files: Map<string, Set<string>>;

  constructor(known: readonly (readonly [word: string, paths: readonly string[]])[] = []) {
    this.#files = new Map(known.map(([word, paths]) => [word, new Set(paths)]));
  }

  get all(): Iterable<string> {
    return this.#files.keys();
  }

  /** Those of some words of which it is not known yet where they stand. */
  unknownOf(words: Iterable<string>): string[] {
    return [...new Set(words)].filter((word) => !this.#files.has(word));
  }

  learn(word: string, paths: readonly string[]): void {
    this.#files.set(word, new Set(paths));
  }

  /** Takes in which of the words stand in a file now; gives those that stand there now or stood there before. */
  changed(path: string, now: readonly string[]): string[] {
    const touched = new Set(now);
    for (const [word, paths] of this.#files) if (paths.delete(path)) touched.add(word);
    for (const word of now) this.#files.get(word)?.add(path);
    return [...touched];
  }

  /** The same, to be stored. Of words that nobody asks for any more nothing is kept. */
  stored(words: ReadonlySet<string>): [word: string, paths: string[]][] {
    const kept = [...this.#files].filter(([word]) => words.has(word));
    return kept.map(([word, paths]) => [word, [...paths].sort()]);
  }
}
