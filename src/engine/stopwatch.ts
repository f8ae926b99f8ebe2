/** A file took longer than it may. */
export class TimeUp extends Error {
  override readonly name = "TimeUp";
}

/** Measures what one file takes, by rule, and gives it up once that is more than it may take. */
export class Stopwatch {
  readonly #byRule = new Map<string, number>();
  readonly #started = performance.now();
  #lap = this.#started;

  /** `most` is in milliseconds; undefined sets no limit. */
  constructor(readonly most: number | undefined) {}

  /** The time since the last lap went to this rule. Throws TimeUp when the file has taken too long. */
  lap(rule: string): void {
    const now = performance.now();
    this.#byRule.set(rule, (this.#byRule.get(rule) ?? 0) + now - this.#lap);
    this.#lap = now;
    this.check(now);
  }

  /** Throws TimeUp when the file has taken too long. */
  check(now = performance.now()): void {
    if (this.most === undefined || now - this.#started <= this.most) return;
    const [slowest] = [...this.#byRule].sort((a, b) => b[1] - a[1]);
    const most = slowest && slowest[1] > this.most / 2 ? `; most of it went to ${slowest[0]}` : "";
    throw new TimeUp(`given up after ${Math.round(this.most / 1000)} s${most}`);
  }
}
