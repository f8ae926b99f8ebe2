/** Counts how often two answers agree, and how often we did not give one. */
export class Tally {
  readonly #others: string;
  #skipped = 0;
  #agreed = 0;
  #unknown = 0;
  readonly #disagreed: string[] = [];
  readonly #reasons = new Map<string, number>();

  constructor(others: string) {
    this.#others = others;
  }

  /** A file that cannot be compared. */
  skip(): void {
    this.#skipped++;
  }

  answer(agrees: boolean, what: string): void {
    if (agrees) this.#agreed++;
    else this.#disagreed.push(what);
  }

  unknown(reason: string): void {
    this.#unknown++;
    const key = reason.replace(/`[^`]*`/gs, "`…`").replace(/\d+/g, "…");
    this.#reasons.set(key, (this.#reasons.get(key) ?? 0) + 1);
  }

  /** Prints the figures; the exit code is 1 where there is a disagreement. */
  print(): void {
    const total = this.#agreed + this.#disagreed.length + this.#unknown;
    const share = ((100 * this.#unknown) / Math.max(1, total)).toFixed(2);
    for (const what of this.#disagreed.slice(0, Number(process.env["SHOW"] ?? 30))) console.log(what);
    console.log(
      `${total} names: ${this.#agreed} as ${this.#others}, ${this.#disagreed.length} otherwise, ` +
        `${this.#unknown} unknown (${share} %), ${this.#skipped} files skipped`,
    );
    for (const [reason, count] of [...this.#reasons].sort((a, b) => b[1] - a[1]))
      console.log(`  ${count} ${reason}`);
    if (this.#disagreed.length > 0) process.exitCode = 1;
  }
}
